// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/compare/test_table_model.h"

#include "core/study/verdict.h"
#include "core/text/number_text.h"

#include <QCoreApplication>

#include <array>

namespace inchpeg::app
{

namespace
{

using Cell = QString (*)(const Study &study, const StudyComparison &comparison, const RailComparison &rail);

QString dash()
{
    return QStringLiteral("–");
}

QString shown(const TensileProperty &property, const std::optional<double> &value, const Summary &summary)
{
    return value ? QString::fromStdString(propertyValueText(
                       property, *value, propertyDecimals(property, summary.sd.value_or(0.0))))
                 : dash();
}

QString number(const std::optional<double> &value, int digits)
{
    return value ? QString::fromStdString(significantText(*value, digits)) : dash();
}

QString probability(const std::optional<double> &p)
{
    if (!p)
        return dash();
    return *p < 1e-4 ? QStringLiteral("< 0.0001") : QString::fromStdString(fixedText(*p, 4));
}

QString estimate(const std::optional<Estimate> &value, int decimals)
{
    if (!value)
        return dash();
    QString text = QString::fromStdString(fixedText(value->value, decimals));
    if (value->ci)
        text += QStringLiteral(" (%1 to %2)")
                    .arg(QString::fromStdString(fixedText(value->ci->low, decimals)),
                         QString::fromStdString(fixedText(value->ci->high, decimals)));
    return text;
}

struct Column {
    const char *heading;
    const char *meaning;
    Cell text;
    bool isNumber = true;
};

constexpr std::array kColumns = {
    Column{QT_TRANSLATE_NOOP("TestTable", "Rail"), "",
           [](const Study &study, const StudyComparison &, const RailComparison &rail) {
               return QString::fromStdString(railTitle(study, *findCondition(study, rail.condition)));
           },
           false},
    Column{QT_TRANSLATE_NOOP("TestTable", "n"),
           QT_TRANSLATE_NOOP("TestTable", "Pieces that count; those left out are not among them"),
           [](const Study &, const StudyComparison &, const RailComparison &rail) {
               return QString::number(rail.summary.n) +
                      (rail.bounds > 0 ? QStringLiteral(" (%1 ≥)").arg(rail.bounds) : QString());
           }},
    Column{QT_TRANSLATE_NOOP("TestTable", "mean"), "",
           [](const Study &, const StudyComparison &c, const RailComparison &rail) {
               return shown(c.property, rail.summary.mean, rail.summary);
           }},
    Column{QT_TRANSLATE_NOOP("TestTable", "sd"),
           QT_TRANSLATE_NOOP("TestTable", "Standard deviation between pieces, n − 1"),
           [](const Study &, const StudyComparison &c, const RailComparison &rail) {
               return shown(c.property, rail.summary.sd, rail.summary);
           }},
    Column{QT_TRANSLATE_NOOP("TestTable", "CV"),
           QT_TRANSLATE_NOOP("TestTable", "Standard deviation over mean"),
           [](const Study &, const StudyComparison &, const RailComparison &rail) {
               return rail.summary.cv ? QString::fromStdString(fixedText(100.0 * *rail.summary.cv, 1)) +
                                            QStringLiteral(" %")
                                      : dash();
           }},
    Column{QT_TRANSLATE_NOOP("TestTable", "ratio to reference"),
           QT_TRANSLATE_NOOP("TestTable", "Ratio of means with Fieller's 95 % interval"),
           [](const Study &, const StudyComparison &, const RailComparison &rail) {
               return estimate(rail.ratio, 3);
           }},
    Column{QT_TRANSLATE_NOOP("TestTable", "Welch t"),
           QT_TRANSLATE_NOOP("TestTable", "Against the reference, own variances"),
           [](const Study &, const StudyComparison &, const RailComparison &rail) {
               return number(rail.welch ? std::optional(rail.welch->t) : std::nullopt, 3);
           }},
    Column{QT_TRANSLATE_NOOP("TestTable", "df"),
           QT_TRANSLATE_NOOP("TestTable", "Satterthwaite's degrees of freedom"),
           [](const Study &, const StudyComparison &, const RailComparison &rail) {
               return number(rail.welch ? std::optional(rail.welch->df) : std::nullopt, 3);
           }},
    Column{QT_TRANSLATE_NOOP("TestTable", "p"),
           QT_TRANSLATE_NOOP("TestTable", "Two-sided, of this comparison alone"),
           [](const Study &, const StudyComparison &, const RailComparison &rail) {
               return probability(rail.welch ? std::optional(rail.welch->p) : std::nullopt);
           }},
    Column{QT_TRANSLATE_NOOP("TestTable", "p, all counted"),
           QT_TRANSLATE_NOOP("TestTable", "Adjusted by Holm over all rails compared with the reference"),
           [](const Study &, const StudyComparison &, const RailComparison &rail) {
               return probability(rail.welchHolm);
           }},
    Column{QT_TRANSLATE_NOOP("TestTable", "Hedges' g"),
           QT_TRANSLATE_NOOP(
               "TestTable",
               "Difference over the pooled standard deviation, small-sample corrected, 95 % interval"),
           [](const Study &, const StudyComparison &, const RailComparison &rail) {
               return estimate(rail.hedgesG, 2);
           }},
};

QString translated(const char *text)
{
    return *text == '\0' ? QString() : QCoreApplication::translate("TestTable", text);
}

} // namespace

TestTableModel::TestTableModel(ProjectSession &session, QObject *parent)
    : QAbstractTableModel(parent), m_session(session)
{
    for (const auto signal : {&ProjectSession::studyChanged, &ProjectSession::readingsChanged,
                              &ProjectSession::comparisonChanged, &ProjectSession::lensChanged})
        connect(&session, signal, this, &TestTableModel::refresh);
}

void TestTableModel::refresh()
{
    beginResetModel();
    m_comparison.reset();
    const Result<TensileProperty> property = tensileProperty(m_session.comparedProperty().toStdString());
    if (m_session.study() != nullptr && property && m_session.isTestTableShown() &&
        m_session.lens() == Lens::Compare)
        m_comparison = compareStudy(*m_session.study(), m_session.readings(), *property);
    endResetModel();
}

int TestTableModel::rowCount(const QModelIndex &parent) const
{
    return parent.isValid() || !m_comparison ? 0 : static_cast<int>(m_comparison->rails.size());
}

int TestTableModel::columnCount(const QModelIndex &parent) const
{
    return parent.isValid() ? 0 : static_cast<int>(kColumns.size());
}

QVariant TestTableModel::data(const QModelIndex &index, int role) const
{
    if (!index.isValid())
        return {};
    const Column &column = kColumns[static_cast<std::size_t>(index.column())];
    if (role == Qt::TextAlignmentRole)
        return QVariant(column.isNumber ? Qt::AlignRight | Qt::AlignVCenter
                                        : Qt::AlignLeft | Qt::AlignVCenter);
    if (role == Qt::DisplayRole)
        return column.text(*m_session.study(), *m_comparison,
                           m_comparison->rails[static_cast<std::size_t>(index.row())]);
    return {};
}

QVariant TestTableModel::headerData(int section, Qt::Orientation orientation, int role) const
{
    if (orientation != Qt::Horizontal)
        return {};
    const Column &column = kColumns[static_cast<std::size_t>(section)];
    if (role == Qt::TextAlignmentRole)
        return QVariant(column.isNumber ? Qt::AlignRight | Qt::AlignVCenter
                                        : Qt::AlignLeft | Qt::AlignVCenter);
    if (role == Qt::DisplayRole)
        return translated(column.heading);
    return role == Qt::ToolTipRole ? translated(column.meaning) : QVariant();
}

} // namespace inchpeg::app
