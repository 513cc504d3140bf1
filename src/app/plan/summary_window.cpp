// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/plan/summary_window.h"

#include "app/parts/page_parts.h"
#include "core/model/rail_summary.h"

#include <QFormLayout>

#include <algorithm>

namespace inchpeg::app
{

namespace
{

/// A number with or without its unit, in the person's way of writing; nothing where the field is empty.
Result<std::optional<double>> typedValue(const QLineEdit *edit, const Unit &unit)
{
    const std::string text = edit->text().simplified().toStdString();
    if (text.empty())
        return std::optional<double>();
    const Result<double> value = parseQuantity(text, unit);
    return value ? Result<std::optional<double>>(std::optional(*value)) : value.error();
}

} // namespace

SummaryWindow::SummaryWindow(ProjectSession &session, QWidget *parent) : QDialog(parent), m_session(session)
{
    setObjectName(QStringLiteral("summaryWindow"));
    setWindowTitle(tr("Known of a rail without its pieces"));
    setModal(false);
    resize(560, 520);
    m_rail = comboBox("summaryRail", tr("Rail"));
    m_property = comboBox("summaryProperty", tr("Property"));
    m_mean = lineEdit("summaryMean", tr("Mean"));
    m_sd = lineEdit("summarySd", tr("Standard deviation"), tr("not known"));
    m_pieces = lineEdit("summaryPieces", tr("Pieces"), tr("not known"));
    m_source = lineEdit("summarySource", tr("From"), tr("sheet, paper, laboratory …"));
    m_hint = softLabel({});
    m_hint->setObjectName(QStringLiteral("summaryHint"));
    m_trouble = new QLabel;
    m_trouble->setObjectName(QStringLiteral("summaryTrouble"));
    m_trouble->setWordWrap(true);
    m_trouble->hide();
    m_keep = button("keepSummary", tr("Keep"), true);
    m_keep->setDefault(true);
    auto *form = new QFormLayout;
    form->setHorizontalSpacing(18);
    form->setVerticalSpacing(8);
    form->addRow(tr("Rail"), m_rail);
    form->addRow(tr("Property"), m_property);
    form->addRow(tr("Mean"), m_mean);
    form->addRow(tr("Standard deviation"), m_sd);
    form->addRow(tr("Pieces"), m_pieces);
    form->addRow(tr("From"), m_source);
    m_list = new QVBoxLayout;
    auto *actions = new QHBoxLayout;
    actions->addStretch(1);
    actions->addWidget(m_keep);
    auto *layout = new QVBoxLayout(this);
    layout->setContentsMargins(24, 18, 24, 18);
    layout->setSpacing(10);
    layout->addWidget(
        softLabel(tr("A rail can stand for pieces that you do not have: it is drawn as mean and "
                     "interval, without pegs, and every sentence says where it is from.")));
    layout->addLayout(form);
    layout->addWidget(m_hint);
    layout->addWidget(m_trouble);
    layout->addLayout(actions);
    layout->addWidget(heading(tr("Kept")));
    layout->addLayout(m_list);
    layout->addStretch(1);
    connect(m_property, &QComboBox::currentIndexChanged, this, &SummaryWindow::refreshHints);
    for (QLineEdit *edit : {m_mean, m_sd, m_pieces, m_source})
        connect(edit, &QLineEdit::textChanged, this, &SummaryWindow::refreshHints);
    connect(m_keep, &QPushButton::clicked, this, &SummaryWindow::keep);
    connect(&session, &ProjectSession::studyChanged, this, &SummaryWindow::refresh);
    connect(&session, &ProjectSession::notationChanged, this, &SummaryWindow::refresh);
    refresh();
}

void SummaryWindow::start()
{
    refresh();
    const Study *study = m_session.study();
    if (study == nullptr)
        return;
    ConditionId rail{};
    if (const Piece *selected = findPiece(*study, m_session.selectedPiece()))
        rail = selected->condition;
    for (const Condition &condition : study->conditions) {
        const std::vector<const Piece *> pieces = piecesOf(*study, condition.id);
        const bool isBroken = std::any_of(pieces.begin(), pieces.end(),
                                          [](const Piece *piece) { return piece->recording.has_value(); });
        if (!isBroken) {
            rail = condition.id;
            break;
        }
    }
    const int place = m_rail->findData(QVariant::fromValue(static_cast<qint64>(rail.value)));
    m_rail->setCurrentIndex(std::max(place, 0));
    m_mean->setFocus();
    m_mean->selectAll();
}

Method SummaryWindow::test() const
{
    const Study *study = m_session.study();
    return m_session.shownTest().value_or(study != nullptr ? methodOf(*study) : StudyTest{}.method);
}

std::optional<Property> SummaryWindow::property() const
{
    const Reduction *reduction = m_session.study() != nullptr ? reductionOf(test()) : nullptr;
    if (reduction == nullptr)
        return std::nullopt;
    const Result<Property> found =
        findProperty(*reduction, m_property->currentData().toString().toStdString());
    return found ? std::optional(*found) : std::nullopt;
}

void SummaryWindow::refresh()
{
    const Study *study = m_session.study();
    const QVariant before = m_rail->currentData();
    {
        const QSignalBlocker blocker(m_rail);
        m_rail->clear();
        for (std::size_t i = 0; study != nullptr && i < study->conditions.size(); ++i)
            m_rail->addItem(QString::fromStdString(distinctTitle(*study, study->conditions[i])),
                            QVariant::fromValue(static_cast<qint64>(study->conditions[i].id.value)));
        m_rail->setCurrentIndex(std::max(m_rail->findData(before), study != nullptr ? 0 : -1));
    }
    fillProperties();
    refreshList();
    refreshHints();
}

void SummaryWindow::fillProperties()
{
    const QSignalBlocker blocker(m_property);
    const QVariant before = m_property->currentData();
    m_property->clear();
    const Reduction *reduction = m_session.study() != nullptr ? reductionOf(test()) : nullptr;
    if (reduction == nullptr)
        return;
    for (const Property &one : reduction->properties) {
        if (one.scale == Scale::Ratio || one.scale == Scale::Interval)
            m_property->addItem(QString::fromUtf8(one.label.data(), qsizetype(one.label.size())),
                                QString::fromUtf8(one.name.data(), qsizetype(one.name.size())));
    }
    const int place = m_property->findData(before.isValid() ? before : m_session.comparedProperty());
    m_property->setCurrentIndex(std::max(place, 0));
}

void SummaryWindow::refreshHints()
{
    const std::optional<Property> shown = property();
    const bool canEdit = shown && !m_session.isForReading() && m_rail->count() > 0;
    m_keep->setEnabled(canEdit && !m_mean->text().simplified().isEmpty());
    m_trouble->hide();
    if (!shown) {
        m_hint->setText(tr("Open a study with rails and a test first."));
        return;
    }
    const std::string symbol(m_session.notation().unitOf(shown->dimension).symbol);
    m_mean->setPlaceholderText(
        symbol.empty() ? tr("a number") : tr("in %1, or with its unit").arg(QString::fromStdString(symbol)));
    const bool isWhole = !m_sd->text().simplified().isEmpty() && m_pieces->text().toInt() >= 2;
    m_hint->setText(
        isWhole ? tr("It will be compared with the other rails as a mean of so many pieces.")
                : tr("Without standard deviation and number of pieces it is shown, and never tested."));
}

void SummaryWindow::refreshList()
{
    clearLayout(m_list);
    const Study *study = m_session.study();
    bool any = false;
    for (std::size_t i = 0; study != nullptr && i < study->conditions.size(); ++i) {
        const Condition &condition = study->conditions[i];
        for (const RailSummary &summary : condition.summaries) {
            const Reduction *reduction = reductionOf(summary.test);
            if (reduction == nullptr)
                continue;
            const Result<Property> property = findProperty(*reduction, summary.property);
            if (!property)
                continue;
            const Notation &notation = m_session.notation();
            QString text =
                tr("%1: %2 %3")
                    .arg(QString::fromStdString(distinctTitle(*study, condition)),
                         QString::fromUtf8(property->label.data(), qsizetype(property->label.size())),
                         QString::fromStdString(notation.quantity(summary.mean, property->dimension, 4)));
            if (summary.sd)
                text += tr(" ± %1").arg(QString::fromStdString(
                    notation.quantity(*summary.sd, differenceOf(property->dimension), 3)));
            if (summary.pieces)
                text += tr(", %n pieces", nullptr, *summary.pieces);
            auto *line = new QWidget;
            auto *row = new QHBoxLayout(line);
            row->setContentsMargins(0, 0, 0, 0);
            auto *label = new QLabel(tr("%1 · %2").arg(text, QString::fromStdString(summary.source)));
            label->setWordWrap(true);
            row->addWidget(label, 1);
            auto *away = button("takeAwaySummary", tr("Take away"));
            away->setEnabled(!m_session.isForReading());
            connect(away, &QPushButton::clicked, this,
                    [this, rail = condition.id, test = summary.test, name = summary.property] {
                        takeAway(rail, test, name);
                    });
            row->addWidget(away);
            m_list->addWidget(line);
            any = true;
        }
    }
    if (!any)
        m_list->addWidget(softLabel(tr("Nothing yet.")));
}

void SummaryWindow::keep()
{
    const std::optional<Property> of = property();
    if (!of)
        return;
    const auto refuse = [this](const Error &error, QLineEdit *where) {
        m_trouble->setText(QString::fromStdString(error.message));
        m_trouble->show();
        where->setFocus();
        where->selectAll();
    };
    const Unit unit = m_session.notation().unitOf(of->dimension);
    const Result<std::optional<double>> mean = typedValue(m_mean, unit);
    if (!mean || !*mean)
        return refuse(mean ? invalidArgument("type the mean") : mean.error(), m_mean);
    const Unit spread = m_session.notation().unitOf(differenceOf(of->dimension));
    const Result<std::optional<double>> sd = typedValue(m_sd, spread);
    if (!sd)
        return refuse(sd.error(), m_sd);
    RailSummary summary{test(),
                        std::string(of->name),
                        **mean,
                        *sd,
                        {},
                        m_source->text().toStdString(),
                        m_session.who().toStdString(),
                        m_session.now()};
    if (!m_pieces->text().simplified().isEmpty()) {
        bool isNumber = false;
        summary.pieces = m_pieces->text().simplified().toInt(&isNumber);
        if (!isNumber)
            return refuse(invalidArgument("type how many pieces it is the mean of, such as 5"), m_pieces);
    }
    if (const std::string trouble = troubleOf(summary); !trouble.empty())
        return refuse(invalidArgument(trouble), m_source->text().simplified().isEmpty() ? m_source : m_mean);
    const ConditionId rail{m_rail->currentData().toLongLong()};
    const bool isKept = m_session.tryEdit(tr("summary of a rail"),
                                          [&](Study &study) { return setSummary(study, rail, summary); });
    if (!isKept)
        return;
    for (QLineEdit *edit : {m_mean, m_sd, m_pieces})
        edit->clear();
    m_mean->setFocus();
}

void SummaryWindow::takeAway(ConditionId rail, Method test, const std::string &property)
{
    m_session.tryEdit(tr("take a summary away"),
                      [&](Study &study) { return clearSummary(study, rail, test, property); });
}

} // namespace inchpeg::app
