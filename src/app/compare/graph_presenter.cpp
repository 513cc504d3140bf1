// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/compare/graph_presenter.h"

#include "core/compare/trade_off_graph.h"
#include "core/method/method.h"

#include <fmt/format.h>

#include <algorithm>

namespace inchpeg::app
{

namespace
{

QString costName(CostKind kind)
{
    switch (kind) {
    case CostKind::PrintTime:
        return GraphPresenter::tr("against print time");
    case CostKind::PieceMass:
        return GraphPresenter::tr("against mass");
    case CostKind::Price:
        return GraphPresenter::tr("against the material's price");
    }
    return {};
}

QString fromUtf8(std::string_view text)
{
    return QString::fromUtf8(text.data(), qsizetype(text.size()));
}

} // namespace

GraphPresenter::GraphPresenter(ProjectSession &session, QObject *parent) : QObject(parent), m_session(session)
{
}

Method GraphPresenter::test() const
{
    return m_session.shownTest().value_or(methodOf(*m_session.study()));
}

bool GraphPresenter::isRead(Method test, const Property &property) const
{
    for (const Piece &piece : m_session.study()->pieces) {
        const PieceReading *reading =
            piece.test == test ? readingOf(m_session.readings(), piece.id) : nullptr;
        if (reading != nullptr && valueOf(reading->result.values, property.name) != nullptr)
            return true;
    }
    return false;
}

void GraphPresenter::choose(std::size_t choice)
{
    if (choice >= m_choices.size())
        return;
    m_wanted = m_choices[choice].kind;
    refresh();
}

void GraphPresenter::offer(const StudyComparison &comparison)
{
    m_choices.clear();
    for (const ComparisonGraph kind : graphsFor(*m_session.study(), comparison))
        m_choices.push_back({kind, fromUtf8(graphName(kind))});
    for (const CostKind kind : {CostKind::PrintTime, CostKind::PieceMass, CostKind::Price})
        m_choices.push_back({kind, costName(kind)});
    m_thirds.clear();
    for (const StudyTest &one : m_session.study()->tests) {
        const Reduction *reduction = reductionOf(one.method);
        for (const Property &property :
             reduction != nullptr ? reduction->properties : std::span<const Property>()) {
            const bool isShown = one.method == test() && property.name == comparison.property.name;
            if (isShown || !hasMean(property) || !isRead(one.method, property))
                continue;
            const QString label = fromUtf8(property.label).toLower();
            const QString name =
                one.method == test() ? label : tr("%1 (%2)").arg(label, fromUtf8(methodName(one.method)));
            const OtherResponse other{one.method, std::string(property.name)};
            m_choices.push_back({other, tr("against %1").arg(name)});
            m_thirds.push_back({other, tr("and %1").arg(name)});
        }
    }
    const auto wanted = std::find_if(m_choices.begin(), m_choices.end(),
                                     [this](const Choice &choice) { return m_wanted == choice.kind; });
    m_chosen =
        wanted == m_choices.end() ? 0 : static_cast<std::size_t>(std::distance(m_choices.begin(), wanted));
}

void GraphPresenter::refresh()
{
    m_graph = {};
    m_choices.clear();
    m_thirds.clear();
    m_chosen = 0;
    const std::optional<Property> property = m_session.shownProperty();
    const bool isShown = m_session.study() != nullptr && property && m_session.lens() == Lens::Compare &&
                         m_session.isGraphShown() && !m_session.isResponseTableShown() &&
                         !m_session.isReading();
    if (isShown) {
        const StudyComparison comparison =
            compareStudy(*m_session.study(), m_session.readings(), *property,
                         {.test = test(), .detail = ComparisonDetail::Sentences});
        offer(comparison);
        m_graph = made(comparison);
    }
    emit changed();
}

Graph GraphPresenter::made(const StudyComparison &comparison) const
{
    const Kind &kind = m_choices[m_chosen].kind;
    const Study &study = *m_session.study();
    if (const auto *own = std::get_if<ComparisonGraph>(&kind))
        return comparisonGraph(*own, study, comparison, notation());
    if (const auto *cost = std::get_if<CostKind>(&kind))
        return overCost(comparison, *cost);
    return overResponse(comparison, std::get<OtherResponse>(kind));
}

std::optional<StudyComparison> GraphPresenter::comparisonOf(const OtherResponse &response) const
{
    const Reduction *reduction = reductionOf(response.test);
    const Result<Property> property = reduction != nullptr
                                          ? findProperty(*reduction, response.property)
                                          : Result<Property>(Error{ErrorCode::NotFound, {}, {}});
    if (!property || findTest(*m_session.study(), response.test) == nullptr)
        return std::nullopt;
    return compareStudy(*m_session.study(), m_session.readings(), *property,
                        {.test = response.test, .detail = ComparisonDetail::Values});
}

Graph GraphPresenter::overResponse(const StudyComparison &comparison, const OtherResponse &other) const
{
    const std::optional<StudyComparison> over = comparisonOf(other);
    if (!over)
        return {};
    std::optional<StudyComparison> third;
    if (m_wantedThird && chosenThird())
        third = comparisonOf(*m_wantedThird);
    return responsesGraph(*m_session.study(), comparison, *over, third ? &*third : nullptr, notation());
}

std::optional<std::size_t> GraphPresenter::chosenThird() const
{
    const bool isOverResponse =
        m_chosen < m_choices.size() && std::holds_alternative<OtherResponse>(m_choices[m_chosen].kind);
    if (!m_wantedThird || !isOverResponse || m_choices[m_chosen].kind == Kind(*m_wantedThird))
        return std::nullopt;
    for (std::size_t i = 0; i < m_thirds.size(); ++i) {
        if (m_thirds[i].kind == Kind(*m_wantedThird))
            return i;
    }
    return std::nullopt;
}

void GraphPresenter::chooseThird(std::optional<std::size_t> choice)
{
    m_wantedThird.reset();
    if (choice && *choice < m_thirds.size())
        m_wantedThird = std::get<OtherResponse>(m_thirds[*choice].kind);
    refresh();
}

Graph GraphPresenter::overCost(const StudyComparison &comparison, CostKind kind) const
{
    const Study &study = *m_session.study();
    Graph graph = tradeOffGraph(study, comparison, railCosts(study, test(), kind, m_session.workshop()),
                                costWords(kind, m_session.workshop().moneyUnit, notation()), notation());
    if (kind == CostKind::Price && graph.isEmpty())
        graph.sentence = tr("No price is known: type it on the spool's card (Ctrl+K).").toStdString();
    return graph;
}

void GraphPresenter::select(const GraphPoint &point)
{
    if (m_session.study() == nullptr)
        return;
    if (point.piece) {
        m_session.selectPiece(*point.piece);
        return;
    }
    if (!point.rail)
        return;
    for (const Piece *piece : piecesOf(*m_session.study(), *point.rail)) {
        if (piece->test == test()) {
            m_session.selectPiece(piece->id);
            return;
        }
    }
}

} // namespace inchpeg::app
