// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/compare/trade_off_presenter.h"

#include "core/compare/verdict.h"

#include <fmt/format.h>

#include <algorithm>

namespace inchpeg::app
{

TradeOffPresenter::TradeOffPresenter(ProjectSession &session, QObject *parent)
    : QObject(parent), m_session(session)
{
}

void TradeOffPresenter::setKind(CostKind kind)
{
    if (kind == m_kind)
        return;
    m_kind = kind;
    refresh();
}

void TradeOffPresenter::refresh()
{
    m_points.clear();
    m_front.clear();
    m_sentence.clear();
    m_property = m_session.shownProperty();
    const bool isShown = m_session.study() != nullptr && m_property && m_session.lens() == Lens::Compare &&
                         m_session.isTradeOffShown() && !m_session.isResponseTableShown() &&
                         !m_session.isReading();
    if (isShown) {
        const Study &study = *m_session.study();
        const Method test = m_session.shownTest().value_or(methodOf(study));
        const StudyComparison comparison = compareStudy(study, m_session.readings(), *m_property,
                                                        {.test = test, .detail = ComparisonDetail::Values});
        const TradeOff found =
            tradeOff(study, comparison, railCosts(study, test, m_kind, m_session.workshop()));
        for (std::size_t i = 0; i < found.points.size(); ++i) {
            const TradeOffPoint &point = found.points[i];
            const Condition &condition = *findCondition(study, point.condition);
            m_points.push_back({point, QString::fromStdString(distinctTitle(study, condition)),
                                condition.id == study.reference, found.knee == i,
                                QString::fromStdString(wordsOf(point, distinctTitle(study, condition)))});
        }
        m_front = found.front;
        m_sentence = QString::fromStdString(tradeOffText(
            study, comparison, found, [this](double cost) { return costText(cost); }, notation()));
        if (m_sentence.isEmpty() && m_points.size() < 2)
            m_sentence = m_kind == CostKind::Price && m_points.empty()
                             ? tr("No price is known: type it on the spool's card (Ctrl+K).")
                             : tr("Two rails with a result are wanted.");
    }
    emit changed();
}

std::string TradeOffPresenter::wordsOf(const TradeOffPoint &point, const std::string &title) const
{
    const double half = point.ci ? 0.5 * (point.ci->high - point.ci->low) : 0.0;
    const auto text = [&](double value) {
        return propertyValueText(*m_property, value, propertyDecimals(*m_property, half, notation()),
                                 notation());
    };
    const std::string interval =
        point.ci ? fmt::format("{} to {}, ", text(point.ci->low), text(point.ci->high)) : std::string();
    return fmt::format("{}: {}{} ({}{} piece{}), {} ({})", title, point.atLeast ? "at least " : "",
                       text(point.mean), interval, point.pieces, point.pieces == 1 ? "" : "s",
                       costText(point.cost), point.costIsMeasured ? "weighed" : "estimated");
}

std::string TradeOffPresenter::costText(double cost) const
{
    switch (m_kind) {
    case CostKind::PieceMass:
        return notation().significant(cost, 3) + " g";
    case CostKind::PrintTime:
        return notation().significant(cost, 3) + " min";
    case CostKind::Price:
        return notation().fixed(cost, 2) + " " + m_session.workshop().moneyUnit;
    }
    return {};
}

QString TradeOffPresenter::costLabel() const
{
    switch (m_kind) {
    case CostKind::PieceMass:
        return tr("Mass of a piece in g");
    case CostKind::PrintTime:
        return tr("Print time of a piece in min");
    case CostKind::Price:
        return tr("Material of a piece in %1").arg(QString::fromStdString(m_session.workshop().moneyUnit));
    }
    return {};
}

QString TradeOffPresenter::valueLabel() const
{
    if (!m_property)
        return {};
    const Unit unit = notation().unitOf(m_property->dimension);
    const QString label = QString::fromUtf8(m_property->label.data(), qsizetype(m_property->label.size()));
    const QString symbol = QString::fromUtf8(unit.symbol.data(), qsizetype(unit.symbol.size()));
    return symbol.isEmpty() || symbol == QStringLiteral("1") ? label : tr("%1 in %2").arg(label, symbol);
}

double TradeOffPresenter::shownValue(double value) const
{
    return m_property ? notation().unitOf(m_property->dimension).fromWorking(value) : value;
}

} // namespace inchpeg::app
