// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/begin/begin_window.h"

#include "app/parts/form_parts.h"
#include "app/parts/page_parts.h"

#include <QApplication>
#include <QClipboard>
#include <QComboBox>
#include <QGridLayout>
#include <QHeaderView>
#include <QScrollArea>
#include <QTreeWidget>
#include <QVBoxLayout>

#include <fmt/format.h>

namespace inchpeg::app
{

namespace
{

constexpr int kShownPieces = 12; ///< of a rail's codes

enum Meaning { Factor_, Counter_, Nothing_ };

QString propertyTitle(const Property &property)
{
    return QString::fromUtf8(property.label.data(), static_cast<qsizetype>(property.label.size()));
}

} // namespace

BeginWindow::BeginWindow(BeginPresenter &presenter, Prompts &prompts, std::function<bool()> ready,
                         QWidget *parent)
    : QDialog(parent), m_presenter(presenter), m_prompts(prompts), m_ready(std::move(ready))
{
    setObjectName(QStringLiteral("beginWindow"));
    setWindowTitle(tr("A study from what is there"));
    resize(940, 620);
    auto *layout = new QVBoxLayout(this);
    layout->setContentsMargins(18, 14, 18, 14);
    layout->setSpacing(10);
    layout->addWidget(createWays());
    m_question = lineEdit("beginQuestion", tr("The question that these pieces answer"),
                          tr("What do you want to know? Write it as a question."));
    layout->addWidget(m_question);
    auto *halves = new QHBoxLayout;
    halves->setSpacing(18);
    halves->addWidget(createParts(), 5);
    halves->addWidget(createRails(), 4);
    layout->addLayout(halves, 1);
    m_open = new QLabel;
    m_open->setObjectName(QStringLiteral("beginOpen"));
    m_open->setProperty("role", QStringLiteral("warning"));
    m_open->setWordWrap(true);
    m_remarks = softLabel({});
    m_remarks->setObjectName(QStringLiteral("beginRemarks"));
    layout->addWidget(m_open);
    layout->addWidget(m_remarks);
    m_make = button("makeStudy", tr("Make the study"), true);
    m_make->setDefault(true);
    layout->addWidget(m_make, 0, Qt::AlignLeft);
    connect(m_make, &QPushButton::clicked, this, &BeginWindow::makeIt);
    connect(&m_presenter, &BeginPresenter::changed, this, &BeginWindow::refresh);
    refresh();
}

QWidget *BeginWindow::createWays()
{
    auto *box = new QWidget;
    auto *layout = new QHBoxLayout(box);
    layout->setContentsMargins(0, 0, 0, 0);
    auto *folder = button("beginFolder", tr("A folder of records…"));
    auto *files = button("beginFiles", tr("Files or a table of results…"));
    auto *pasted = button("beginPaste", tr("Paste a table"));
    pasted->setShortcut(QKeySequence(Qt::CTRL | Qt::SHIFT | Qt::Key_V));
    connect(folder, &QPushButton::clicked, this, &BeginWindow::chooseFolder);
    connect(files, &QPushButton::clicked, this, &BeginWindow::chooseFiles);
    connect(pasted, &QPushButton::clicked, this, &BeginWindow::paste);
    m_test = new QComboBox;
    m_test->setObjectName(QStringLiteral("beginTest"));
    m_test->setAccessibleName(tr("The test that was made"));
    for (const MethodFacts &facts : allMethods()) {
        if (facts.reduction != nullptr)
            m_test->addItem(QString::fromUtf8(facts.name), static_cast<int>(facts.method));
    }
    connect(m_test, &QComboBox::activated, this,
            [this] { m_presenter.setTest(static_cast<Method>(m_test->currentData().toInt())); });
    auto *testLabel = new QLabel(tr("Test"));
    testLabel->setBuddy(m_test);
    layout->addWidget(folder);
    layout->addWidget(files);
    layout->addWidget(pasted);
    layout->addStretch(1);
    layout->addWidget(testLabel);
    layout->addWidget(m_test);
    return box;
}

QWidget *BeginWindow::createParts()
{
    auto *box = new QWidget;
    auto *layout = new QVBoxLayout(box);
    layout->setContentsMargins(0, 0, 0, 0);
    m_partsTitle = heading({});
    layout->addWidget(m_partsTitle);
    auto *inner = new QWidget;
    m_parts = new QGridLayout(inner);
    m_parts->setContentsMargins(0, 0, 6, 0);
    m_parts->setHorizontalSpacing(10);
    m_parts->setColumnStretch(0, 2);
    m_parts->setColumnStretch(1, 2);
    m_parts->setColumnStretch(2, 2);
    m_parts->setAlignment(Qt::AlignTop);
    auto *scroll = new QScrollArea;
    scroll->setWidget(inner);
    scroll->setWidgetResizable(true);
    scroll->setFrameShape(QFrame::NoFrame);
    scroll->setFocusPolicy(Qt::NoFocus);
    layout->addWidget(scroll, 1);
    return box;
}

QWidget *BeginWindow::createRails()
{
    auto *box = new QWidget;
    auto *layout = new QVBoxLayout(box);
    layout->setContentsMargins(0, 0, 0, 0);
    m_railsTitle = heading({});
    layout->addWidget(m_railsTitle);
    m_rails = new QTreeWidget;
    m_rails->setObjectName(QStringLiteral("beginRails"));
    m_rails->setAccessibleName(tr("Rails and pieces"));
    m_rails->setRootIsDecorated(false);
    m_rails->setColumnCount(3);
    m_rails->setHeaderLabels({tr("Rail"), tr("Pieces"), tr("From")});
    m_rails->header()->setStretchLastSection(true);
    m_rails->setSelectionMode(QAbstractItemView::NoSelection);
    layout->addWidget(m_rails, 1);
    return box;
}

void BeginWindow::chooseFiles()
{
    m_presenter.lookAt(m_prompts.filePaths(this, tr("Records, or a table of results"), tr("All files (*)")));
}

void BeginWindow::chooseFolder()
{
    if (const QString folder = m_prompts.folderPath(this, tr("A folder of records"), {}); !folder.isEmpty())
        m_presenter.lookAt({folder});
}

void BeginWindow::paste()
{
    m_presenter.lookAtText(QApplication::clipboard()->text());
}

void BeginWindow::refresh()
{
    const FoundStudy *found = m_presenter.found();
    if (found != nullptr)
        m_test->setCurrentIndex(m_test->findData(static_cast<int>(found->test)));
    const QString proposed = found != nullptr ? m_presenter.proposedQuestion() : QString();
    if (m_question->text() == m_proposed)
        m_question->setText(proposed);
    m_proposed = proposed;
    if (!m_presenter.isLooking()) // the fields stay while it is looked at again
        fillParts();
    fillRails();
    const QStringList open =
        m_presenter.problem().isEmpty() ? m_presenter.openQuestions() : QStringList{m_presenter.problem()};
    m_open->setText(open.join(QLatin1Char('\n')));
    m_open->setVisible(!open.isEmpty());
    constexpr int kShownRemarks = 5;
    QStringList remarks = m_presenter.remarks();
    if (remarks.size() > kShownRemarks) {
        const auto more = remarks.size() - kShownRemarks;
        remarks = remarks.mid(0, kShownRemarks);
        remarks << tr("… and %1 more").arg(more);
    }
    m_remarks->setText(remarks.join(QLatin1Char('\n')));
    m_remarks->setVisible(!remarks.isEmpty());
    m_make->setEnabled(m_presenter.canMake());
    if (found != nullptr && !m_presenter.isLooking())
        goToNext();
}

/// From the way by which it came, the keyboard goes to what has to be said, else to what makes the study; a
/// field of the person's own choice keeps it.
void BeginWindow::goToNext()
{
    const QWidget *focus = focusWidget();
    const bool isOnAWay = focus == nullptr || focus == this ||
                          (qobject_cast<const QPushButton *>(focus) != nullptr && focus != m_make);
    if (!isOnAWay)
        return;
    for (QComboBox *box : findChildren<QComboBox *>()) {
        // Those that were taken away have no name any more; a new one is not shown yet.
        if (box == m_test || box->count() == 0 || box->currentIndex() >= 0 || box->objectName().isEmpty())
            continue;
        box->show();
        return box->setFocus(Qt::OtherFocusReason);
    }
    if (m_make->isEnabled())
        m_make->setFocus(Qt::OtherFocusReason);
    else
        m_question->setFocus(Qt::OtherFocusReason);
}

void BeginWindow::fillParts()
{
    const FoundStudy *found = m_presenter.found();
    QWidget *focus = QApplication::focusWidget();
    const QString focused = focus != nullptr && isAncestorOf(focus) ? focus->objectName() : QString();
    clearLayout(m_parts);
    if (found == nullptr) {
        m_partsTitle->setText(m_presenter.isLooking()
                                  ? tr("Looking at what is there…")
                                  : tr("Drop records or a table of results on the window, "
                                       "choose them, or paste a table."));
        return;
    }
    m_partsTitle->setText(found->results ? tr("How each column was understood")
                                         : tr("How each part of the names was understood"));
    if (found->results) {
        for (std::size_t c = 0; c < found->results->columns.size(); ++c)
            addColumn(c + 1, found->results->columns[c]);
    } else {
        for (const PartUse &part : found->proposal.parts)
            addPart(part);
    }
    if (auto *field = focused.isEmpty() ? nullptr : findChild<QWidget *>(focused))
        field->setFocus(Qt::OtherFocusReason);
}

void BeginWindow::addPart(const PartUse &part)
{
    const int row = m_parts->rowCount();
    const auto name = [&](const char *what) {
        return QStringLiteral("%1%2").arg(QLatin1String(what)).arg(part.number);
    };
    auto *written = new QLabel(QString::fromStdString(part.name));
    written->setTextFormat(Qt::PlainText);
    auto *is = new QComboBox;
    is->setObjectName(name("partIs"));
    is->setAccessibleName(tr("What part %1 is").arg(part.number));
    is->addItems({tr("a factor"), tr("counts the pieces"), tr("means nothing")});
    is->setPlaceholderText(tr("say what it is"));
    is->setCurrentIndex(part.isOpen                           ? -1
                        : part.role == PartUse::Role::Factor  ? Factor_
                        : part.role == PartUse::Role::Counter ? Counter_
                                                              : Nothing_);
    auto *factor = lineEdit("", tr("Factor of part %1").arg(part.number), tr("name of the factor"));
    factor->setObjectName(name("partFactor"));
    auto *unit = lineEdit("", tr("Unit of part %1").arg(part.number), tr("unit"));
    unit->setObjectName(name("partUnit"));
    unit->setMaximumWidth(70);
    const FoundStudy &found = *m_presenter.found();
    std::size_t place = 0;
    for (const PartUse &other : found.proposal.parts) {
        if (other.number == part.number)
            break;
        place += other.role == PartUse::Role::Factor ? 1U : 0U;
    }
    if (part.role == PartUse::Role::Factor && place < found.proposal.factors.size()) {
        factor->setText(QString::fromStdString(found.proposal.factors[place].name));
        unit->setText(QString::fromStdString(found.proposal.factors[place].unit));
    }
    const bool isFactor = part.role == PartUse::Role::Factor;
    factor->setVisible(isFactor);
    unit->setVisible(isFactor);
    const std::size_t number = part.number;
    connect(is, &QComboBox::activated, this, [this, number, factor, unit](int index) {
        const auto said = [](std::string_view word) {
            return QString::fromUtf8(word.data(), static_cast<qsizetype>(word.size()));
        };
        if (index == Factor_)
            m_presenter.setPart(number, factor->text().isEmpty() ? tr("factor") : factor->text(),
                                unit->text());
        else
            m_presenter.setPart(number, said(index == Counter_ ? kCountsPieces : kMeansNothing), {});
    });
    const auto renamed = [this, number, factor, unit] {
        if (factor->isModified() || unit->isModified())
            m_presenter.setPart(number, factor->text(), unit->text());
    };
    connect(factor, &QLineEdit::editingFinished, this, renamed);
    connect(unit, &QLineEdit::editingFinished, this, renamed);
    m_parts->addWidget(written, row, 0);
    m_parts->addWidget(is, row, 1);
    m_parts->addWidget(factor, row, 2);
    m_parts->addWidget(unit, row, 3);
}

void BeginWindow::addColumn(std::size_t number, const ResultsColumn &column)
{
    const int row = m_parts->rowCount();
    auto *written = new QLabel(QString::fromStdString(column.heading));
    written->setTextFormat(Qt::PlainText);
    written->setWordWrap(true);
    auto *is = new QComboBox;
    is->setObjectName(QStringLiteral("columnIs%1").arg(number));
    is->setAccessibleName(tr("What “%1” holds").arg(written->text()));
    is->addItem(tr("left aside"), QStringLiteral("-"));
    is->addItem(tr("names the pieces"), QStringLiteral("code"));
    is->addItem(tr("a factor"), QStringLiteral("factor"));
    for (const Property &property : reductionOf(m_presenter.test())->properties)
        is->addItem(propertyTitle(property),
                    QString::fromUtf8(property.name.data(), static_cast<qsizetype>(property.name.size())));
    using Role = ResultsColumn::Role;
    const bool isKept = column.role == Role::Width || column.role == Role::Thickness ||
                        column.role == Role::Diameter || column.role == Role::Weighed ||
                        column.role == Role::Note || column.role == Role::Break ||
                        column.role == Role::Material;
    const QString meaning = column.role == Role::Code       ? QStringLiteral("code")
                            : column.role == Role::Factor   ? QStringLiteral("factor")
                            : column.role == Role::Property ? QString::fromStdString(column.property)
                                                            : QStringLiteral("-");
    if (isKept)
        is->setItemText(0, tr("kept with the piece")); // a size, a mass, a remark
    is->setCurrentIndex(std::max(0, is->findData(meaning)));
    auto *unit = new QComboBox;
    unit->setObjectName(QStringLiteral("columnUnit%1").arg(number));
    unit->setAccessibleName(tr("Unit of “%1”").arg(written->text()));
    const bool isProperty = column.role == Role::Property;
    if (isProperty) {
        const Dimension dimension =
            findProperty(*reductionOf(m_presenter.test()), column.property)->dimension;
        for (const Unit &one : allUnits()) {
            if (one.dimension == dimension)
                unit->addItem(
                    QString::fromUtf8(one.symbol.data(), static_cast<qsizetype>(one.symbol.size())));
        }
        unit->setCurrentIndex(
            column.unit ? unit->findText(QString::fromUtf8(
                              column.unit->symbol.data(), static_cast<qsizetype>(column.unit->symbol.size())))
                        : -1);
        unit->setPlaceholderText(tr("unit?"));
    }
    unit->setVisible(isProperty && unit->count() > 1);
    auto *factor =
        new QLabel(column.role == Role::Factor ? QString::fromStdString(column.factor.name) : QString());
    connect(is, &QComboBox::activated, this, [this, number, is, heading = written->text()] {
        const QString chosen = is->currentData().toString();
        if (chosen == QLatin1String("factor"))
            m_presenter.setPart(number, heading, {});
        else
            m_presenter.setColumn(number, chosen, {});
    });
    connect(unit, &QComboBox::activated, this, [this, number, is, unit] {
        m_presenter.setColumn(number, is->currentData().toString(), unit->currentText());
    });
    m_parts->addWidget(written, row, 0);
    m_parts->addWidget(is, row, 1);
    m_parts->addWidget(isProperty ? static_cast<QWidget *>(unit) : factor, row, 2);
    (isProperty ? static_cast<QWidget *>(factor) : unit)->deleteLater();
}

void BeginWindow::fillRails()
{
    m_rails->clear();
    const FoundStudy *found = m_presenter.found();
    if (found == nullptr) {
        m_railsTitle->setText({});
        return;
    }
    const StudyProposal &proposal = found->proposal;
    m_railsTitle->setText(tr("%1 rails, %2 pieces").arg(proposal.rails.size()).arg(proposal.pieces.size()));
    for (std::size_t r = 0; r < proposal.rails.size(); ++r) {
        QStringList levels;
        for (std::size_t f = 0; f < proposal.factors.size(); ++f)
            levels << QString::fromStdString(levelText(proposal.factors[f], proposal.rails[r].levels[f]));
        QStringList from;
        int pieces = 0;
        for (const ProposedPiece &piece : proposal.pieces) {
            if (piece.rail != r)
                continue;
            ++pieces;
            if (pieces <= kShownPieces)
                from << QString::fromStdString(
                    found->results ? (piece.code.empty()
                                          ? fmt::format("line {}", found->results->rows[piece.source].line)
                                          : piece.code)
                                   : found->names[piece.source]);
        }
        if (pieces > kShownPieces)
            from << QStringLiteral("…");
        auto *item = new QTreeWidgetItem(
            {levels.join(QStringLiteral(" · ")), QString::number(pieces), from.join(QStringLiteral(", "))});
        item->setToolTip(2, from.join(QLatin1Char('\n')));
        m_rails->addTopLevelItem(item);
    }
    m_rails->resizeColumnToContents(0);
    m_rails->resizeColumnToContents(1);
}

void BeginWindow::makeIt()
{
    const QString question = m_question->text(); // a project that is opened now may begin it anew
    if (m_ready() && m_presenter.make(question)) {
        close();
        emit made();
    }
}

} // namespace inchpeg::app
