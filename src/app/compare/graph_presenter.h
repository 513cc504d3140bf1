// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "app/session/project_session.h"
#include "core/compare/comparison_graphs.h"
#include "core/logbook/rail_costs.h"

#include <QObject>

#include <string>
#include <variant>

namespace inchpeg::app
{

/// What the Compare lens draws over two axes: the comparison itself, or the response over what a piece costs
/// or over another response of the test.
class GraphPresenter : public QObject
{
    Q_OBJECT
public:
    explicit GraphPresenter(ProjectSession &session, QObject *parent = nullptr);

    /// Another response of the study.
    struct OtherResponse {
        Method test = Method::Tension;
        std::string property;
        bool operator==(const OtherResponse &) const = default;
    };
    /// A graph of the comparison, a cost, or another response.
    using Kind = std::variant<ComparisonGraph, CostKind, OtherResponse>;
    struct Choice {
        Kind kind;
        QString name;
    };
    /// Those that can be chosen now, the one that fits the question best first.
    [[nodiscard]] const std::vector<Choice> &choices() const { return m_choices; }
    /// Which of them is shown.
    [[nodiscard]] std::size_t chosen() const { return m_chosen; }
    void choose(std::size_t choice);
    /// Where the response is drawn over another one: those that may stand beside each rail as a third.
    [[nodiscard]] const std::vector<Choice> &thirds() const { return m_thirds; }
    [[nodiscard]] std::optional<std::size_t> chosenThird() const; ///< nothing: none
    void chooseThird(std::optional<std::size_t> choice);

    [[nodiscard]] const Graph &graph() const { return m_graph; }
    [[nodiscard]] QString text() const { return QString::fromStdString(graphText(m_graph)); }
    [[nodiscard]] const Notation &notation() const { return m_session.notation(); }
    /// The same peg in every lens: the piece of the point, or the first of its rail.
    void select(const GraphPoint &point);

    void refresh();

signals:
    void changed();

private:
    void offer(const StudyComparison &comparison);
    [[nodiscard]] Graph made(const StudyComparison &comparison) const;
    [[nodiscard]] Graph overCost(const StudyComparison &comparison, CostKind kind) const;
    [[nodiscard]] Graph overResponse(const StudyComparison &comparison, const OtherResponse &other) const;
    [[nodiscard]] std::optional<StudyComparison> comparisonOf(const OtherResponse &response) const;
    /// Whether a record of that test gives it.
    [[nodiscard]] bool isRead(Method test, const Property &property) const;
    [[nodiscard]] Method test() const;

    ProjectSession &m_session;
    std::vector<Choice> m_choices;
    std::vector<Choice> m_thirds;
    std::size_t m_chosen = 0;
    std::optional<Kind> m_wanted; ///< by the person; while it can be shown
    std::optional<OtherResponse> m_wantedThird;
    Graph m_graph;
};

} // namespace inchpeg::app
