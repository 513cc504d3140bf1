// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/report/result_card.h"

#include "core/compare/verdict.h"
#include "core/report/decision_report.h"
#include "core/report/rails_drawing.h"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>

namespace inchpeg
{

namespace
{

constexpr double kEdge = 48.0;
constexpr double kTitleSize = 34.0;
constexpr double kVerdictSize = 23.0;
constexpr double kFootSize = 17.0;
constexpr std::size_t kCardRails = 10;

/// Title and verdict from the top, the foot at the bottom; yields where the picture may begin.
double writeCard(Drawing &card, const std::string &title, const std::string &verdict, const std::string &foot)
{
    card.width = kCardWidth;
    card.height = kCardHeight;
    card.rectangle({0.0, 0.0}, kCardWidth, kCardHeight, Ink::White);
    card.rectangle({0.0, 0.0}, 14.0, kCardHeight, Ink::Accent);
    const double room = kCardWidth - 2.0 * kEdge;
    double y = kEdge + kTitleSize * 0.7;
    for (const std::string &line : wrapped(title, kTitleSize, room, 2)) {
        card.shapes.emplace_back(DrawnText{{kEdge, y}, line, kTitleSize, Anchor::Start, true});
        y += 1.25 * kTitleSize;
    }
    y += 4.0;
    for (const std::string &line : wrapped(verdict, kVerdictSize, room, 4)) {
        card.shapes.emplace_back(DrawnText{{kEdge, y}, line, kVerdictSize});
        y += 1.35 * kVerdictSize;
    }
    card.line({kEdge, kCardHeight - kEdge - 6.0}, {kCardWidth - kEdge, kCardHeight - kEdge - 6.0}, 1.0,
              Ink::Pale);
    card.shapes.emplace_back(DrawnText{{kEdge, kCardHeight - 24.0},
                                       fitted(foot, kFootSize, room),
                                       kFootSize,
                                       Anchor::Start,
                                       false,
                                       Ink::Grey});
    return y;
}

/// As large as its room lets it be, in the middle.
void placeFitting(Drawing &card, const Drawing &picture, double top)
{
    const double room = kCardHeight - kEdge - 16.0 - top;
    const double scale = std::min((kCardWidth - 2.0 * kEdge) / picture.width, room / picture.height);
    card.place(picture,
               {(kCardWidth - scale * picture.width) / 2.0, top + (room - scale * picture.height) / 2.0},
               scale);
}

/// The headline, and of the rail that differs most what can be said of it.
std::string cardVerdict(const Study &study, const StudyComparison &comparison, const Notation &notation)
{
    const StudyVerdict verdict = verdictOf(study, comparison, notation);
    std::string text = verdict.headline;
    const RailComparison *most = nullptr;
    for (const RailComparison &rail : comparison.rails) {
        if (rail.effect && rail.effect->isClear() &&
            (most == nullptr || std::abs(rail.effect->t) > std::abs(most->effect->t)))
            most = &rail;
    }
    for (const RailVerdict &rail : verdict.rails) {
        if (most != nullptr && rail.condition == most->condition)
            text += ' ' + distinctTitle(study, *findCondition(study, rail.condition)) + ": " + rail.sentence;
    }
    return text;
}

} // namespace

Drawing resultCard(const Study &study, const StudyComparison &comparison, const ReportOrigin &origin,
                   const Notation &notation)
{
    StudyComparison shown = comparison;
    if (shown.rails.size() > kCardRails) { // the reference stays, wherever it stands
        const auto reference = std::find_if(shown.rails.begin(), shown.rails.end(),
                                            [](const RailComparison &rail) { return rail.isReference; });
        if (reference != shown.rails.end() &&
            reference - shown.rails.begin() >= static_cast<std::ptrdiff_t>(kCardRails))
            std::iter_swap(reference, shown.rails.begin() + static_cast<std::ptrdiff_t>(kCardRails) - 1);
        shown.rails.resize(kCardRails);
    }
    std::size_t pieces = 0;
    for (const RailComparison &rail : comparison.rails)
        pieces += rail.told ? 0 : rail.summary.n;
    const std::size_t hidden = comparison.rails.size() - shown.rails.size();
    Drawing card;
    const double top = writeCard(
        card, study.question, cardVerdict(study, comparison, notation),
        fmt::format("{} pieces{}{}  ·  {}", pieces,
                    hidden > 0 ? fmt::format(", {} more {} not drawn", hidden, hidden == 1 ? "rail" : "rails")
                               : "",
                    study.tests.size() > 1 ? ", one of several tests" : "", footOf(origin)));
    for (const Drawing &picture : railsDrawings(study, shown, notation, kCardRails))
        placeFitting(card, picture, top);
    return card;
}

Drawing decisionCard(const Decision &decision, const ReportOrigin &origin)
{
    Drawing card;
    const double top =
        writeCard(card, decision.needs.part.empty() ? "A part" : decision.needs.part, decision.headline,
                  "Filled: passes. Crossed: fails. Hollow: not known.  ·  " + footOf(origin));
    if (const std::vector<Drawing> pictures = gatesDrawings(decision, kCardRails); !pictures.empty())
        placeFitting(card, pictures.front(), top);
    return card;
}

} // namespace inchpeg
