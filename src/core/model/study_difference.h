// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "core/model/study.h"

#include <optional>
#include <utility>
#include <vector>

namespace inchpeg
{

/// What an edit changed in a study, both ways, and nothing of what it left alone: steps of undo keep these
/// instead of two whole studies.
class StudyDifference
{
public:
    /// before, after: the same study.
    StudyDifference(const Study &before, const Study &after);

    /// The study after the edit, from the one before it; and the reverse. Precondition: the study is that
    /// one.
    [[nodiscard]] Study forward(Study study) const { return applied(std::move(study), true); }
    [[nodiscard]] Study backward(Study study) const { return applied(std::move(study), false); }

private:
    template <typename T>
    using Change = std::optional<std::pair<T, T>>; ///< before and after; nothing where they are equal

    [[nodiscard]] Study applied(Study study, bool forwards) const;

    Change<Study> m_frame; ///< everything but pieces, plan and log
    Change<Plan> m_plan;   ///< without its printed plates
    Change<std::vector<PrintedPlate>> m_printed;
    Change<StudyLog> m_log;
    Change<std::vector<PieceId>> m_order; ///< where pieces came, went or moved
    /// Pieces that differ: before, after; one of them is nothing where the piece came or went.
    std::vector<std::pair<std::optional<Piece>, std::optional<Piece>>> m_pieces;
};

} // namespace inchpeg
