// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "app/bench/bench_keeper.h"

#include <algorithm>
#include <functional>
#include <optional>
#include <random>
#include <string>
#include <utility>
#include <vector>

namespace inchpeg::app
{

/// A round of blind judgements that outlives the program. Every answer is in the project, as a setting of it,
/// before the next one is asked for; at the end each piece's answers become its record. Kind says what a
/// round is made of:
///   Value                                   the round with its answers
///   kMethod, kSetting, kGauge               the test, its setting without the study, what its records say
///   was read draw(pieces, settings, seed)            a new one isOver(round), pieces(round), cells(round,
///   piece) keepOnly(round, isStillThere), text(round), fromText(text)
template <typename Kind>
class BlindRound
{
public:
    using Value = typename Kind::Value;

    BlindRound(ProjectSession &session, BenchKeeper &keeper) : m_session(session), m_keeper(keeper) {}

    [[nodiscard]] bool isUnderWay() const { return m_round.has_value(); }
    [[nodiscard]] const Value *round() const { return m_round ? &*m_round : nullptr; }
    [[nodiscard]] bool wasEnded() const { return m_wasEnded; } ///< since the study was opened
    [[nodiscard]] const std::vector<PieceId> &waiting() const { return m_waiting; }

    /// waiting: pieces of the test without a record. note: of the records that a finished round makes.
    void setWaiting(const std::vector<PieceId> &waiting, const QString &note)
    {
        m_waiting = waiting;
        const StudyId shown = m_session.study() == nullptr ? StudyId{} : m_session.study()->id;
        if (shown != m_study) {
            m_study = shown;
            m_wasEnded = false;
            m_ended.clear();
            readKept();
        }
        const auto waits = [&](PieceId piece) {
            return std::find(waiting.begin(), waiting.end(), piece) != waiting.end();
        };
        if (!m_ended.empty() && std::none_of(m_ended.begin(), m_ended.end(), waits)) {
            m_ended.clear();
            forget();
        }
        if (!m_round || m_keeper.isBusy() || m_session.isForReading())
            return;
        Kind::keepOnly(*m_round, waits);
        if (Kind::isOver(*m_round))
            finish(note);
    }

    bool begin()
    {
        if (isUnderWay() || m_waiting.empty())
            return false;
        const StudyTest *test = findTest(*m_session.study(), Kind::kMethod);
        Value drawn = Kind::draw(m_waiting, test != nullptr ? test->setup.settings : MethodSettings(),
                                 std::random_device{}());
        if (Kind::isOver(drawn) || !keep(drawn))
            return false;
        m_round = std::move(drawn);
        m_wasEnded = false;
        m_session.selectPiece({}); // no rail is pointed at
        return true;
    }

    /// The round with one answer more.
    bool answer(Value after, const QString &note)
    {
        if (m_keeper.isBusy() || !keep(after))
            return false;
        m_round = std::move(after);
        if (Kind::isOver(*m_round))
            finish(note);
        return true;
    }

    /// The round without its last answer.
    void takeBack(Value before)
    {
        if (keep(before))
            m_round = std::move(before);
    }

private:
    [[nodiscard]] std::string settingName() const { return Kind::kSetting + std::to_string(m_study.value); }

    bool keep(const Value &round)
    {
        return m_session.tell(
            m_session.isForReading()
                ? Status(invalidArgument("the project is open for reading: nothing can be judged"))
                : m_session.project().setSetting(settingName(), Kind::text(round)));
    }
    void forget() { m_session.tell(m_session.project().setSetting(settingName(), "")); }

    void readKept()
    {
        m_round.reset();
        if (!m_session.hasProject() || m_session.study() == nullptr)
            return;
        const Result<std::optional<std::string>> kept = m_session.project().setting(settingName());
        if (!kept || !*kept || (*kept)->empty())
            return;
        Result<Value> round = Kind::fromText(**kept);
        if (m_session.tell(round ? ok() : Status(round.error())))
            m_round = std::move(*round);
    }

    /// The round is kept until its records are: a program that ends in between does the rest when it is
    /// opened again.
    void finish(const QString &note)
    {
        const Value done = *m_round;
        const std::vector<PieceId> pieces = Kind::pieces(done);
        bool areAllKept = true;
        for (const PieceId piece : pieces) {
            const TypedRow row{Kind::cells(done, piece), m_session.now()};
            areAllKept = m_keeper.keepTyped(piece, {row}, Kind::kGauge, note) && areAllKept;
        }
        if (!areAllKept)
            return;
        m_round.reset();
        m_wasEnded = true;
        m_ended = pieces;
        if (m_ended.empty()) // all were kept before the program ended
            forget();
    }

    ProjectSession &m_session;
    BenchKeeper &m_keeper;
    std::vector<PieceId> m_waiting;
    StudyId m_study{};
    std::optional<Value> m_round;
    std::vector<PieceId> m_ended; ///< whose answers are on their way into their records
    bool m_wasEnded = false;
};

} // namespace inchpeg::app
