// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/plan/plates_view.h"

#include "app/export/table_copy.h"
#include "app/paper/plate_pictures.h"
#include "app/parts/page_parts.h"
#include "core/planning/print_estimate.h"
#include "service/local_day.h"

#include <QHeaderView>
#include <QTableView>

#include <limits>

namespace inchpeg::app
{

namespace
{

constexpr int kTallestCosts = 230;

} // namespace

PlatesView::PlatesView(PlanPresenter &presenter, QWidget *parent)
    : QWidget(parent), m_presenter(presenter), m_costs(presenter)
{
    setObjectName(QStringLiteral("platesView"));
    QVBoxLayout *layout = scrollingPage(this);
    layout->addWidget(createOrder());
    m_words = new QLabel;
    m_words->setWordWrap(true);
    m_words->setObjectName(QStringLiteral("plateWords"));
    layout->addWidget(m_words);
    m_pictures = new PlatePictures;
    layout->addWidget(m_pictures);
    layout->addWidget(createCosts());
    layout->addStretch(1);
    connect(m_pictures, &PlatePictures::plateChosen, this, &PlatesView::refreshChosen);
    connect(m_pictures, &PlatePictures::pieceChosen, &presenter.session(), &ProjectSession::selectPiece);
    connect(&presenter.session(), &ProjectSession::selectionChanged, this, [this] {
        if (isVisible() && m_presenter.session().study() != nullptr)
            m_pictures->set(m_presenter.state().study(), m_presenter.state().layout(),
                            m_presenter.session().selectedPiece());
    });
}

QWidget *PlatesView::createOrder()
{
    auto *box = new QWidget;
    auto *layout = new QVBoxLayout(box);
    layout->setContentsMargins(0, 0, 0, 0);
    auto *workshop = button("plateWorkshop", tr("Printers and spools…"));
    auto *top = new QHBoxLayout;
    top->addWidget(heading(tr("Plates, in the order of printing")), 1);
    top->addWidget(workshop);
    layout->addLayout(top);
    m_printer = comboBox("printer", tr("Printer"));
    m_rounds = spinBox("rounds", tr("Rounds"), 1, 20);
    m_rounds->setToolTip(
        tr("In how many rounds the pieces are printed and tested; each holds its share of every "
           "rail, so that a bad day or plate does not hit one rail alone"));
    m_gap = numberBox("gap", tr("Gap"), 0.0, 100.0, 0, QStringLiteral(" mm"));
    m_seed = spinBox("seed", tr("Seed"), 1, std::numeric_limits<int>::max());
    m_seed->setToolTip(
        tr("The orders of printing and testing are drawn from this number; the same number gives "
           "the same order on every machine"));
    auto *draw = button("drawAgain", tr("Draw again"));
    m_printed = button("markPrinted", {}, true);
    auto *grid = new QGridLayout;
    addField(grid, 0, 0, tr("Printer"), m_printer);
    addField(grid, 0, 1, tr("Rounds"), m_rounds);
    addField(grid, 0, 2, tr("Gap"), m_gap);
    grid->setColumnStretch(1, 3);
    grid->setColumnMinimumWidth(1, 118);
    layout->addLayout(grid);
    auto *row = new QHBoxLayout;
    auto *seedLabel = new QLabel(tr("Orders from the seed"));
    seedLabel->setBuddy(m_seed);
    m_seed->setMaximumWidth(96);
    row->addWidget(seedLabel);
    row->addWidget(m_seed);
    row->addWidget(draw);
    row->addStretch(1);
    row->addWidget(m_printed);
    layout->addLayout(row);
    connect(workshop, &QPushButton::clicked, this, &PlatesView::workshopRequested);
    connect(m_printer, &QComboBox::activated, this,
            [this] { m_presenter.setPrinter(m_printer->currentText()); });
    connect(m_rounds, &QSpinBox::valueChanged, this, [this](int rounds) { m_presenter.setRounds(rounds); });
    connect(m_gap, &QDoubleSpinBox::valueChanged, this, [this](double gap) { m_presenter.setGap(gap); });
    connect(m_seed, &QSpinBox::valueChanged, this,
            [this](int seed) { m_presenter.setSeed(static_cast<std::uint64_t>(seed)); });
    connect(draw, &QPushButton::clicked, this, [this] { m_presenter.drawAgain(); });
    connect(m_printed, &QPushButton::clicked, this, [this] {
        const int number = m_pictures->chosenPlate();
        const std::vector<Plate> &plates = m_presenter.state().layout().plates;
        const auto plate = std::find_if(plates.begin(), plates.end(),
                                        [number](const Plate &one) { return one.number == number; });
        if (plate == plates.end())
            return;
        if (plate->printedAt.empty())
            m_presenter.markPrinted(number);
        else
            m_presenter.unmarkPrinted(number);
    });
    return box;
}

QWidget *PlatesView::createCosts()
{
    auto *box = new QWidget;
    auto *layout = new QVBoxLayout(box);
    layout->setContentsMargins(0, 4, 0, 0);
    layout->addWidget(heading(tr("Mass, time, money")));
    m_costTable = new QTableView;
    m_costTable->setObjectName(QStringLiteral("costTable"));
    m_costTable->setAccessibleName(tr("Mass, time and money of each rail"));
    m_costTable->setModel(&m_costs);
    m_costTable->verticalHeader()->hide();
    m_costTable->horizontalHeader()->setSectionResizeMode(QHeaderView::ResizeToContents);
    m_costTable->horizontalHeader()->setSectionResizeMode(CostTableModel::Rail, QHeaderView::Stretch);
    m_costTable->setTabKeyNavigation(false);
    offerCopy(*m_costTable);
    layout->addWidget(m_costTable);
    m_spools = new QLabel;
    m_spools->setObjectName(QStringLiteral("spoolWords"));
    m_spools->setWordWrap(true);
    layout->addWidget(m_spools);
    m_record = softLabel({});
    m_record->setObjectName(QStringLiteral("planRecord"));
    layout->addWidget(m_record);
    return box;
}

void PlatesView::fitCosts()
{
    int height = m_costTable->horizontalHeader()->sizeHint().height() + 4;
    for (int row = 0; row < m_costs.rowCount(); ++row)
        height += m_costTable->rowHeight(row);
    m_costTable->setFixedHeight(std::min(height, kTallestCosts));
}

void PlatesView::refreshChosen()
{
    const int number = m_pictures->chosenPlate();
    const std::vector<Plate> &plates = m_presenter.state().layout().plates;
    const auto plate = std::find_if(plates.begin(), plates.end(),
                                    [number](const Plate &one) { return one.number == number; });
    m_printed->setVisible(plate != plates.end());
    if (plate == plates.end())
        return;
    m_printed->setText(plate->printedAt.empty() ? tr("Plate %1 is printed").arg(number)
                                                : tr("Plate %1 is not printed after all").arg(number));
}

void PlatesView::refresh()
{
    PlanState &state = m_presenter.state();
    const Study &study = state.study();
    const Workshop &workshop = m_presenter.session().workshop();
    const PlateLayout &layout = state.layout();
    {
        const QSignalBlocker blocker(m_printer);
        m_printer->clear();
        for (const PrinterCard &printer : workshop.printers)
            m_printer->addItem(QString::fromStdString(printer.name));
        const PrinterCard *printer = findPrinter(workshop, study.plan.print.printer);
        m_printer->setCurrentText(printer != nullptr ? QString::fromStdString(printer->name) : QString());
    }
    showValue(m_rounds, study.plan.print.rounds);
    showValue(m_gap, study.plan.print.gap_mm);
    showValue(m_seed, static_cast<int>(
                          std::min<std::uint64_t>(study.plan.print.seed, std::numeric_limits<int>::max())));
    QStringList unplaced;
    for (const PieceId piece : layout.unplaced)
        unplaced << QString::fromStdString(findPiece(study, piece)->code);
    m_words->setVisible(!unplaced.isEmpty());
    m_words->setText(
        tr("%1 pieces do not fit the printer (%2): choose a smaller specimen or another printer.")
            .arg(unplaced.size())
            .arg(unplaced.mid(0, 6).join(QStringLiteral(", "))));
    m_pictures->set(study, layout, m_presenter.session().selectedPiece());
    refreshChosen();
    m_costs.refresh();
    fitCosts();
    QStringList spools;
    for (const SpoolUse &use : spoolUse(study, workshop))
        spools << QString::fromStdString(use.sentence);
    for (const MaterialCare &care : materialCare(study, workshop))
        spools << QString::fromStdString(care.sentence);
    m_spools->setText(spools.mid(0, 10).join(QLatin1Char('\n')));
    QStringList record;
    for (const PlanNote &note : study.plan.record)
        record << tr("%1, %2: %3")
                      .arg(localDay(note.when), QString::fromStdString(note.who),
                           QString::fromStdString(note.text));
    m_record->setVisible(!record.isEmpty());
    m_record->setText(tr("Changes after printing had begun:\n") + record.join(QLatin1Char('\n')));
}

} // namespace inchpeg::app
