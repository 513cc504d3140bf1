// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/logbook/result_cautions.h"

#include "core/logbook/logged_confounds.h"

#include <fmt/format.h>

#include <map>

namespace inchpeg
{

std::vector<std::string> resultCautions(const Study &study, const Workshop &workshop)
{
    std::vector<std::string> cautions;
    for (const Confound &confound : loggedConfounds(study, workshop)) {
        if (confound.weight == Confound::Weight::Aliased)
            cautions.push_back(confound.sentence);
    }
    std::map<std::pair<std::string, std::string>, int> expired;
    for (const Piece &piece : study.pieces) {
        if (piece.recording && piece.recording->gauge && isExpired(*piece.recording->gauge))
            ++expired[{piece.recording->gauge->name, piece.recording->gauge->calibration->due}];
    }
    for (const auto &[gauge, pieces] : expired)
        cautions.push_back(fmt::format("{} {} recorded with {} after its calibration had ended on {}.",
                                       pieces, pieces == 1 ? "piece was" : "pieces were", gauge.first,
                                       gauge.second));
    return cautions;
}

} // namespace inchpeg
