// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/logbook/result_cautions.h"

#include "core/logbook/break_looks.h"
#include "core/logbook/logged_confounds.h"

#include <fmt/format.h>

#include <algorithm>
#include <array>
#include <map>

namespace inchpeg
{

std::vector<std::string> resultCautions(const Study &study, const Workshop &workshop,
                                        const PieceReadings *readings)
{
    std::vector<std::string> cautions;
    for (const Confound &confound : loggedConfounds(study, workshop, readings)) {
        if (confound.weight == Confound::Weight::Aliased)
            cautions.push_back(confound.sentence);
    }
    // What was done, with which gauge, and when its calibration ended.
    std::map<std::array<std::string, 3>, int> expired;
    const auto look = [&expired](const char *done, const UsedGauge &gauge) {
        if (isExpired(gauge))
            ++expired[{done, gauge.name, gauge.calibration->due}];
    };
    for (const Piece &piece : study.pieces) {
        if (piece.recording && piece.recording->gauge)
            look("recorded", *piece.recording->gauge);
        for (const MeasuredWith &with : piece.log.gauges)
            look(with.fields == std::vector<std::string>{"mass"} ? "weighed" : "measured", with.gauge);
    }
    for (const auto &[what, pieces] : expired)
        cautions.push_back(fmt::format("{} {} {} with {} after its calibration had ended on {}.", pieces,
                                       pieces == 1 ? "piece was" : "pieces were", what[0], what[1], what[2]));
    for (const auto &[kind, pieces] : suspectBreaks(study))
        cautions.push_back(fmt::format("{} seen as \"{}\" and {}: {}. Leave {} out with that reason, or say "
                                       "why not.",
                                       pieces == 1 ? "1 break was" : fmt::format("{} breaks were", pieces),
                                       kind->label, pieces == 1 ? "counts" : "count", kind->meaning,
                                       pieces == 1 ? "it" : "them"));
    const bool anyRecord = std::any_of(study.pieces.begin(), study.pieces.end(),
                                       [](const Piece &piece) { return piece.recording.has_value(); });
    const bool anyPrintLogged =
        std::any_of(study.log.plates.begin(), study.log.plates.end(), [](const PlateRecord &plate) {
            return !plate.settings.empty() || plate.chamber_C || !plate.printer.empty() ||
                   !plate.spool.empty();
        });
    if (anyRecord && !anyPrintLogged)
        cautions.push_back("Nothing was logged of the prints: confounds could not be looked for.");
    return cautions;
}

} // namespace inchpeg
