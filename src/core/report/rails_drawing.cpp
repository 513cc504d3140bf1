// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/report/rails_drawing.h"

#include "core/compare/comparison_graphs.h"
#include "core/compare/procedure_text.h"
#include "core/text/axis_scale.h"

#include <fmt/format.h>

#include <algorithm>
#include <map>

namespace inchpeg
{

namespace
{

constexpr double kTitles = 190.0; ///< room for the names of the rails
constexpr double kCounts = 64.0;  ///< room for the numbers of pieces
constexpr double kRow = 26.0;
constexpr double kAxis = 36.0;
constexpr double kTop = 8.0;
constexpr double kPeg = 4.0;
constexpr double kFont = 10.5;
constexpr double kSmall = 9.0;
constexpr int kMarks = 6;

class RailsDrawer
{
public:
    RailsDrawer(const Study &study, const StudyComparison &comparison, const Notation &notation)
        : m_study(study), m_comparison(comparison), m_notation(notation),
          m_unit(notation.unitOf(comparison.property.dimension))
    {
        std::vector<double> values;
        for (const RailComparison &rail : comparison.rails) {
            for (const PieceValue &value : rail.values)
                values.push_back(m_unit.fromWorking(value.value));
            if (rail.summary.ci && hasMean(comparison.property)) {
                values.push_back(m_unit.fromWorking(rail.summary.ci->low));
                values.push_back(m_unit.fromWorking(rail.summary.ci->high));
            }
        }
        m_isEmpty = values.empty() || comparison.property.scale == inchpeg::Scale::Word;
        m_scale = scaleAround(values, kMarks);
    }

    [[nodiscard]] bool isEmpty() const { return m_isEmpty; }

    [[nodiscard]] Drawing draw(std::size_t first, std::size_t end) const
    {
        Drawing drawing;
        const double foot = kTop + kRow * static_cast<double>(end - first);
        drawing.width = kDrawingWidth;
        drawing.height = foot + kAxis;
        for (const double mark : m_scale.marks()) {
            drawing.line({across(mark), kTop}, {across(mark), foot + 4.0}, 0.6, Ink::Pale);
            drawing.shapes.emplace_back(DrawnText{{across(mark), foot + 15.0},
                                                  m_notation.fixed(mark, m_scale.decimals),
                                                  kSmall,
                                                  Anchor::Middle});
        }
        drawing.shapes.emplace_back(
            DrawnText{{(across(m_scale.low) + across(m_scale.high)) / 2.0, foot + 30.0},
                      axisLabel(m_comparison.property, m_notation),
                      kFont,
                      Anchor::Middle});
        for (std::size_t i = first; i < end; ++i)
            drawRail(drawing, m_comparison.rails[i], kTop + kRow * (static_cast<double>(i - first) + 0.5));
        return drawing;
    }

private:
    [[nodiscard]] double across(double shown) const
    {
        return kTitles + 8.0 + m_scale.share(shown) * (kDrawingWidth - kTitles - kCounts - 16.0);
    }
    [[nodiscard]] double place(double working) const { return across(m_unit.fromWorking(working)); }

    void drawRail(Drawing &drawing, const RailComparison &rail, double y) const
    {
        const Condition &condition = *findCondition(m_study, rail.condition);
        drawing.shapes.emplace_back(DrawnText{{kTitles, y + 3.5},
                                              fitted(distinctTitle(m_study, condition), kFont, kTitles),
                                              kFont,
                                              Anchor::End,
                                              rail.isReference});
        drawing.line({across(m_scale.low), y}, {across(m_scale.high), y}, 0.8, Ink::Grey);
        const Summary &summary = rail.summary;
        if (summary.ci && hasMean(m_comparison.property) && rail.bounds == 0)
            drawing.rectangle({place(summary.ci->low), y - 8.0},
                              place(summary.ci->high) - place(summary.ci->low), 16.0, Ink::Pale);
        std::map<double, int> sameGrade; // pegs of one grade stand side by side, so that they can be counted
        // Those that do not count lie above the others, or they would be hidden.
        std::vector<PieceValue> values = rail.values;
        std::stable_partition(values.begin(), values.end(),
                              [](const PieceValue &value) { return value.counts(); });
        for (const PieceValue &value : values) {
            const int before = hasMean(m_comparison.property) ? 0 : sameGrade[value.value]++;
            drawPeg(drawing, value, rail.isReference, {place(value.value) + 2.2 * kPeg * before, y});
        }
        if (const std::optional<double> &middle =
                hasMean(m_comparison.property) ? summary.mean : summary.median)
            drawing.line({place(*middle), y - 10.0}, {place(*middle), y + 10.0}, 2.2, Ink::Black);
        drawing.shapes.emplace_back(
            DrawnText{{kDrawingWidth, y + 3.5},
                      rail.told ? "summary" : fmt::format("n = {}{}", summary.n, rail.bounds > 0 ? " ≥" : ""),
                      kSmall,
                      Anchor::End,
                      false,
                      Ink::Grey});
    }

    static void drawPeg(Drawing &drawing, const PieceValue &value, bool isReference, DrawnPoint at)
    {
        if (!value.counts()) {
            drawing.line({at.x - kPeg, at.y - kPeg}, {at.x + kPeg, at.y + kPeg}, 1.6, Ink::Grey);
            drawing.line({at.x - kPeg, at.y + kPeg}, {at.x + kPeg, at.y - kPeg}, 1.6, Ink::Grey);
            return;
        }
        if (value.atLeast) { // open to the right
            drawing.shapes.emplace_back(DrawnPath{{{at.x + kPeg, at.y - kPeg},
                                                   {at.x, at.y - kPeg},
                                                   {at.x, at.y + kPeg},
                                                   {at.x + kPeg, at.y + kPeg}},
                                                  1.4,
                                                  Ink::Black});
            drawing.shapes.emplace_back(DrawnPath{
                {{at.x + kPeg + 4.0, at.y - 3.0}, {at.x + kPeg + 9.0, at.y}, {at.x + kPeg + 4.0, at.y + 3.0}},
                1.4,
                Ink::Black});
            return;
        }
        drawing.shapes.emplace_back(DrawnCircle{at, kPeg, 1.2, isReference ? Ink::Black : Ink::Accent,
                                                isReference ? Ink::White : Ink::Accent});
    }

    const Study &m_study;
    const StudyComparison &m_comparison;
    const Notation &m_notation;
    Unit m_unit;
    AxisScale m_scale;
    bool m_isEmpty = false;
};

} // namespace

std::vector<Drawing> railsDrawings(const Study &study, const StudyComparison &comparison,
                                   const Notation &notation, std::size_t railsEach)
{
    const RailsDrawer drawer(study, comparison, notation);
    std::vector<Drawing> drawings;
    for (std::size_t first = 0; !drawer.isEmpty() && first < comparison.rails.size(); first += railsEach)
        drawings.push_back(drawer.draw(first, std::min(first + railsEach, comparison.rails.size())));
    return drawings;
}

std::string railsKey(const StudyComparison &comparison, const Notation &notation)
{
    bool hasBounds = false;
    bool hasOthers = false;
    bool hasInterval = false;
    for (const RailComparison &rail : comparison.rails) {
        hasInterval = hasInterval || (rail.summary.ci && rail.bounds == 0);
        for (const PieceValue &value : rail.values) {
            hasBounds = hasBounds || (value.atLeast && value.counts());
            hasOthers = hasOthers || !value.counts();
        }
    }
    const bool isMean = hasMean(comparison.property);
    std::string text = fmt::format("A dot is a piece, hollow on the reference; the upright line is the {}",
                                   isMean ? "mean" : "median");
    if (isMean && hasInterval)
        text += fmt::format(", the band its {} interval", confidenceText(comparison.confidence, notation));
    text += '.';
    if (hasBounds)
        text += " Brackets that are open to the right are “at least” values.";
    if (hasOthers)
        text += " Crossed pieces do not count.";
    return text;
}

} // namespace inchpeg
