// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/model/study_difference.h"

#include <map>

namespace inchpeg
{

namespace
{

/// The small part of a study; the rest is compared by itself.
Study frameOf(const Study &study)
{
    Study frame;
    frame.id = study.id;
    frame.question = study.question;
    frame.tests = study.tests;
    frame.factors = study.factors;
    frame.conditions = study.conditions;
    frame.reference = study.reference;
    frame.smallestDifference = study.smallestDifference;
    frame.sectionShape = study.sectionShape;
    return frame;
}

Plan planWithoutPlates(const Plan &plan)
{
    Plan out = plan;
    out.print.printed.clear();
    return out;
}

template <typename T>
std::optional<std::pair<T, T>> change(T before, T after)
{
    if (before == after)
        return std::nullopt;
    return std::pair(std::move(before), std::move(after));
}

std::vector<PieceId> orderOf(const Study &study)
{
    std::vector<PieceId> order;
    order.reserve(study.pieces.size());
    for (const Piece &piece : study.pieces)
        order.push_back(piece.id);
    return order;
}

std::map<PieceId, const Piece *> piecesById(const Study &study)
{
    std::map<PieceId, const Piece *> pieces;
    for (const Piece &piece : study.pieces)
        pieces.emplace_hint(pieces.end(), piece.id, &piece);
    return pieces;
}

} // namespace

StudyDifference::StudyDifference(const Study &before, const Study &after)
    : m_frame(change(frameOf(before), frameOf(after)))
{
    require(before.id == after.id, "two studies have no difference");
    if (!(before.plan == after.plan)) {
        m_plan = change(planWithoutPlates(before.plan), planWithoutPlates(after.plan));
        m_printed = change(before.plan.print.printed, after.plan.print.printed);
    }
    if (!(before.log == after.log))
        m_log = std::pair(before.log, after.log);
    m_order = change(orderOf(before), orderOf(after));
    if (!m_order) {
        for (std::size_t i = 0; i < before.pieces.size(); ++i) {
            if (!(before.pieces[i] == after.pieces[i]))
                m_pieces.emplace_back(before.pieces[i], after.pieces[i]);
        }
        return;
    }
    const std::map<PieceId, const Piece *> old = piecesById(before);
    const std::map<PieceId, const Piece *> now = piecesById(after);
    for (const auto &[id, piece] : old) {
        const auto found = now.find(id);
        if (found == now.end())
            m_pieces.emplace_back(*piece, std::nullopt);
        else if (!(*piece == *found->second))
            m_pieces.emplace_back(*piece, *found->second);
    }
    for (const auto &[id, piece] : now) {
        if (!old.contains(id))
            m_pieces.emplace_back(std::nullopt, *piece);
    }
}

Study StudyDifference::applied(Study study, bool forwards) const
{
    const auto pick = [forwards](const auto &pair) -> const auto &
    {
        return forwards ? pair.second : pair.first;
    };
    if (m_frame) {
        Study frame = pick(*m_frame);
        frame.pieces = std::move(study.pieces);
        frame.plan = std::move(study.plan);
        frame.log = std::move(study.log);
        study = std::move(frame);
    }
    if (m_plan) {
        std::vector<PrintedPlate> printed = std::move(study.plan.print.printed);
        study.plan = pick(*m_plan);
        study.plan.print.printed = std::move(printed);
    }
    if (m_printed)
        study.plan.print.printed = pick(*m_printed);
    if (m_log)
        study.log = pick(*m_log);
    std::map<PieceId, const Piece *> changed;
    for (const auto &pair : m_pieces) {
        if (const std::optional<Piece> &piece = pick(pair))
            changed[piece->id] = &*piece;
    }
    if (!m_order) {
        for (Piece &piece : study.pieces) {
            if (const auto found = changed.find(piece.id); found != changed.end())
                piece = *found->second;
        }
        return study;
    }
    std::map<PieceId, Piece> kept;
    for (Piece &piece : study.pieces)
        kept.emplace_hint(kept.end(), piece.id, std::move(piece));
    std::vector<Piece> pieces;
    for (const PieceId id : pick(*m_order)) {
        const auto found = changed.find(id);
        pieces.push_back(found != changed.end() ? *found->second : std::move(kept.at(id)));
    }
    study.pieces = std::move(pieces);
    return study;
}

} // namespace inchpeg
