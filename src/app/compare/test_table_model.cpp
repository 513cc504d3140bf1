// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/compare/test_table_model.h"

#include "core/compare/verdict.h"

#include <QCoreApplication>

#include <array>

namespace inchpeg::app
{

namespace
{

/// What a cell is made of.
struct Row {
    const Study &study;
    const Property &property;
    const RailComparison &rail;
    bool asRatio = true; ///< effects are ratios, not differences
    const Notation &notation;
};
using Cell = QString (*)(const Row &row);

QString dash()
{
    return QStringLiteral("–");
}

QString shown(const Row &row, const std::optional<double> &value)
{
    const int decimals = propertyDecimals(row.property, row.rail.summary.sd.value_or(0.0), row.notation);
    return value ? QString::fromStdString(propertyValueText(row.property, *value, decimals, row.notation))
                 : dash();
}

QString shownSpread(const Row &row, const std::optional<double> &spread)
{
    const int decimals = propertyDecimals(row.property, spread.value_or(0.0), row.notation);
    return spread
               ? QString::fromStdString(propertyDifferenceText(row.property, *spread, decimals, row.notation))
               : dash();
}

QString number(const Row &row, const std::optional<double> &value, int digits)
{
    return value ? QString::fromStdString(row.notation.significant(*value, digits)) : dash();
}

QString probability(const Row &row, const std::optional<double> &p)
{
    if (!p)
        return dash();
    return *p < 1e-4 ? QStringLiteral("< ") + QString::fromStdString(row.notation.plain(0.0001))
                     : QString::fromStdString(row.notation.fixed(*p, 4));
}

QString estimate(const Row &row, const std::optional<Estimate> &value, int decimals)
{
    if (!value)
        return dash();
    const auto fixed = [&](double number) {
        return QString::fromStdString(row.notation.fixed(number, decimals));
    };
    QString text = fixed(value->value);
    if (value->ci)
        text += QStringLiteral(" (%1 to %2)").arg(fixed(value->ci->low), fixed(value->ci->high));
    return text;
}

/// A ratio, or a difference in the property's own unit.
QString shownEffect(const Row &row, const std::optional<Effect> &effect, const QString &side)
{
    if (!effect)
        return dash();
    if (row.asRatio)
        return side + estimate(row, Estimate{effect->estimate, effect->ci}, 3);
    return side + QStringLiteral("%1 (%2 to %3)")
                      .arg(shownSpread(row, effect->estimate), shownSpread(row, effect->ci.low),
                           shownSpread(row, effect->ci.high));
}

QString effect(const Row &row)
{
    return shownEffect(row, row.rail.effect,
                       row.rail.effectBound == EffectBound::AtLeast  ? QStringLiteral("≥ ")
                       : row.rail.effectBound == EffectBound::AtMost ? QStringLiteral("≤ ")
                                                                     : QString());
}

struct Column {
    const char *heading;
    const char *meaning;
    Cell text;
    bool isNumber = true;
};

constexpr std::array kTestColumns = {
    Column{QT_TRANSLATE_NOOP("TestTable", "Rail"), QT_TRANSLATE_NOOP("TestTable", "The condition"),
           [](const Row &row) {
               return QString::fromStdString(
                   railTitle(row.study, *findCondition(row.study, row.rail.condition)));
           },
           false},
    Column{QT_TRANSLATE_NOOP("TestTable", "n"),
           QT_TRANSLATE_NOOP("TestTable", "Pieces that count; those left out are not among them"),
           [](const Row &row) {
               if (row.rail.told)
                   return row.rail.told->pieces ? QCoreApplication::translate("TestTable", "summary of %1")
                                                      .arg(*row.rail.told->pieces)
                                                : QCoreApplication::translate("TestTable", "summary");
               return QString::number(row.rail.summary.n) +
                      (row.rail.bounds > 0 ? QStringLiteral(" (%1 ≥)").arg(row.rail.bounds) : QString());
           }},
    Column{QT_TRANSLATE_NOOP("TestTable", "mean"),
           QT_TRANSLATE_NOOP("TestTable", "Arithmetic mean of the pieces that count"),
           [](const Row &row) { return shown(row, row.rail.summary.mean); }},
    Column{QT_TRANSLATE_NOOP("TestTable", "sd"),
           QT_TRANSLATE_NOOP("TestTable", "Standard deviation between pieces, n − 1"),
           [](const Row &row) { return shownSpread(row, row.rail.summary.sd); }},
    Column{QT_TRANSLATE_NOOP("TestTable", "CV"),
           QT_TRANSLATE_NOOP("TestTable", "Standard deviation over mean"),
           [](const Row &row) {
               const std::optional<double> cv = row.rail.summary.cv;
               return cv ? QString::fromStdString(row.notation.fixed(100.0 * *cv, 1)) + QStringLiteral(" %")
                         : dash();
           }},
    Column{QT_TRANSLATE_NOOP("TestTable", "beside the reference"),
           QT_TRANSLATE_NOOP(
               "TestTable",
               "Ratio of means, or their difference, with the interval (confidence as planned) that "
               "holds together with those of the other rails: what the sentence claims"),
           [](const Row &row) { return effect(row); }},
    Column{QT_TRANSLATE_NOOP("TestTable", "t"),
           QT_TRANSLATE_NOOP("TestTable", "Of that effect, and the value that it must exceed to be clear"),
           [](const Row &row) {
               return row.rail.effect
                          ? QStringLiteral("%1 (%2)").arg(number(row, row.rail.effect->t, 3),
                                                          number(row, row.rail.effect->critical, 3))
                          : dash();
           }},
    Column{QT_TRANSLATE_NOOP("TestTable", "p, together"),
           QT_TRANSLATE_NOOP("TestTable", "Two-sided, all comparisons counted"),
           [](const Row &row) { return probability(row, row.rail.familyP); }},
    Column{QT_TRANSLATE_NOOP("TestTable", "bounds counted"),
           QT_TRANSLATE_NOOP(
               "TestTable", "The same effect where bounds are among the values, each counted as the bound it "
                            "is: maximum likelihood with a common scatter"),
           [](const Row &row) { return shownEffect(row, row.rail.countingBounds, QString()); }},
    Column{QT_TRANSLATE_NOOP("TestTable", "Fieller's ratio"),
           QT_TRANSLATE_NOOP("TestTable",
                             "Another school: ratio of means by itself, own variances, Fieller's interval"),
           [](const Row &row) { return estimate(row, row.rail.ratio, 3); }},
    Column{QT_TRANSLATE_NOOP("TestTable", "Welch t"),
           QT_TRANSLATE_NOOP("TestTable", "Another school: against the reference by itself, own variances"),
           [](const Row &row) {
               return number(row, row.rail.welch ? std::optional(row.rail.welch->t) : std::nullopt, 3);
           }},
    Column{QT_TRANSLATE_NOOP("TestTable", "df"),
           QT_TRANSLATE_NOOP("TestTable", "Satterthwaite's degrees of freedom"),
           [](const Row &row) {
               return number(row, row.rail.welch ? std::optional(row.rail.welch->df) : std::nullopt, 3);
           }},
    Column{QT_TRANSLATE_NOOP("TestTable", "Welch p"),
           QT_TRANSLATE_NOOP("TestTable", "Two-sided, of Welch's comparison alone"),
           [](const Row &row) {
               return probability(row, row.rail.welch ? std::optional(row.rail.welch->p) : std::nullopt);
           }},
    Column{QT_TRANSLATE_NOOP("TestTable", "Holm p"),
           QT_TRANSLATE_NOOP("TestTable",
                             "Welch's p, adjusted by Holm over all rails compared with the reference"),
           [](const Row &row) { return probability(row, row.rail.welchHolm); }},
    Column{QT_TRANSLATE_NOOP("TestTable", "ranks p"),
           QT_TRANSLATE_NOOP("TestTable",
                             "Another school: by ranks alone (Mann and Whitney), by itself; with three "
                             "pieces on either side never below 0.1"),
           [](const Row &row) {
               return probability(row, row.rail.ranks ? std::optional(row.rail.ranks->p) : std::nullopt);
           }},
    Column{
        QT_TRANSLATE_NOOP("TestTable", "trimmed p"),
        QT_TRANSLATE_NOOP("TestTable",
                          "Another school: means without the outer fifth at either end (Yuen), by itself: a "
                          "stray value does not decide; the same as Welch's below five pieces"),
        [](const Row &row) {
            return probability(row,
                               row.rail.trimmed ? std::optional(row.rail.trimmed->test.p) : std::nullopt);
        }},
    Column{QT_TRANSLATE_NOOP("TestTable", "Hedges' g"),
           QT_TRANSLATE_NOOP(
               "TestTable",
               "Difference over the pooled standard deviation, small-sample corrected, with its interval"),
           [](const Row &row) { return estimate(row, row.rail.hedgesG, 2); }},
};

QString translated(const char *text)
{
    return *text == '\0' ? QString() : QCoreApplication::translate("TestTable", text);
}

} // namespace

TestTableModel::TestTableModel(ProjectSession &session, QObject *parent)
    : QAbstractTableModel(parent), m_session(session)
{
    for (const auto signal :
         {&ProjectSession::studyChanged, &ProjectSession::readingsChanged, &ProjectSession::comparisonChanged,
          &ProjectSession::lensChanged, &ProjectSession::notationChanged})
        connect(&session, signal, this, &TestTableModel::refresh);
}

void TestTableModel::refresh()
{
    beginResetModel();
    m_comparison.reset();
    const std::optional<Property> property = m_session.shownProperty();
    if (m_session.study() != nullptr && property && m_session.isTestTableShown() &&
        m_session.lens() == Lens::Compare)
        m_comparison = compareStudy(*m_session.study(), m_session.readings(), *property,
                                    {.test = m_session.shownTest(), .detail = ComparisonDetail::Tests});
    endResetModel();
}

int TestTableModel::rowCount(const QModelIndex &parent) const
{
    return parent.isValid() || !m_comparison ? 0 : static_cast<int>(m_comparison->rails.size());
}

int TestTableModel::columnCount(const QModelIndex &parent) const
{
    return parent.isValid() ? 0 : static_cast<int>(kTestColumns.size());
}

QVariant TestTableModel::data(const QModelIndex &index, int role) const
{
    if (!index.isValid())
        return {};
    const Column &column = kTestColumns[static_cast<std::size_t>(index.column())];
    if (role == Qt::TextAlignmentRole)
        return QVariant(column.isNumber ? Qt::AlignRight | Qt::AlignVCenter
                                        : Qt::AlignLeft | Qt::AlignVCenter);
    if (role == Qt::DisplayRole)
        return column.text({*m_session.study(), m_comparison->property,
                            m_comparison->rails[static_cast<std::size_t>(index.row())], m_comparison->asRatio,
                            m_session.notation()});
    return {};
}

QVariant TestTableModel::headerData(int section, Qt::Orientation orientation, int role) const
{
    if (orientation != Qt::Horizontal)
        return {};
    const Column &column = kTestColumns[static_cast<std::size_t>(section)];
    if (role == Qt::TextAlignmentRole)
        return QVariant(column.isNumber ? Qt::AlignRight | Qt::AlignVCenter
                                        : Qt::AlignLeft | Qt::AlignVCenter);
    if (role == Qt::DisplayRole)
        return translated(column.heading);
    return role == Qt::ToolTipRole || role == Qt::WhatsThisRole ? translated(column.meaning) : QVariant();
}

} // namespace inchpeg::app
