// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/model/study_check.h"

#include "core/model/design.h"
#include "core/model/rail_summary.h"
#include "core/units/number.h"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>
#include <set>

namespace inchpeg
{

namespace
{

const double kUsualDifference = Study().smallestDifference;

bool isSize(double si)
{
    return std::isfinite(si) && si > 0.0;
}

bool isPossible(const Section &section)
{
    if (const auto *rectangle = std::get_if<RectangularSection>(&section))
        return isSize(rectangle->width.si()) && isSize(rectangle->thickness.si());
    if (const auto *round = std::get_if<RoundSection>(&section))
        return isSize(round->diameter.si());
    return isSize(std::get<PlainArea>(section).area.si());
}

/// Goes through a study once; mends where it may, and tells either way.
class ContentCheck
{
public:
    /// mends: the study that is put right on the way; nullptr where it is only looked at.
    ContentCheck(const Study &study, Study *mends) : m_study(study), m_mends(mends)
    {
        for (const Condition &condition : study.conditions)
            m_rails.insert(condition.id);
        for (const Piece &piece : study.pieces)
            m_pieces.insert(piece.id);
    }

    StudyFindings run()
    {
        checkIds();
        checkTests();
        checkFactors();
        checkConditions();
        checkSummaries();
        checkPieces();
        checkReference();
        checkDifference();
        checkSections();
        checkCodes();
        checkPlan();
        return std::move(m_findings);
    }

private:
    template <typename... Args>
    void broken(fmt::format_string<Args...> text, Args &&...args)
    {
        m_findings.broken.push_back(fmt::format(text, std::forward<Args>(args)...));
    }

    template <typename... Args>
    void mendable(fmt::format_string<Args...> text, Args &&...args)
    {
        m_findings.mendable.push_back(fmt::format(text, std::forward<Args>(args)...));
    }

    void checkIds()
    {
        std::set<std::int64_t> known;
        const auto take = [&](std::int64_t id, const std::string &whose) {
            if (id < 1)
                broken("{} has the id {}; ids count from 1", whose, id);
            else if (!known.insert(id).second)
                broken("{} has the id {}, which another thing of the study has too", whose, id);
        };
        take(m_study.id.value, "the study");
        for (const Condition &condition : m_study.conditions)
            take(condition.id.value, "a rail");
        for (const Piece &piece : m_study.pieces)
            take(piece.id.value, fmt::format("piece {}", piece.code));
    }

    void checkTests()
    {
        if (m_study.tests.empty())
            broken("the study has no test");
        std::set<Method> known;
        for (const StudyTest &test : m_study.tests) {
            if (!known.insert(test.method).second)
                broken("the test \"{}\" stands there twice", methodName(test.method));
            if (test.piecesPerCondition < 0 || test.piecesPerCondition > kMostPiecesPerCondition)
                broken("the test \"{}\" asks for {} pieces a rail; 0 to {} can be", methodName(test.method),
                       test.piecesPerCondition, kMostPiecesPerCondition);
        }
    }

    void checkFactors()
    {
        if (m_study.factors.empty() || m_study.factors.size() > kMostFactors)
            broken("the study has {} factors; one to {} can be", m_study.factors.size(), kMostFactors);
        std::set<std::string> names;
        for (const Factor &factor : m_study.factors) {
            if (!factor.name.empty() && !names.insert(factor.name).second)
                broken("two factors are called \"{}\"", factor.name);
        }
    }

    void checkConditions()
    {
        if (m_study.conditions.size() > kMostConditions)
            broken("the study has {} rails; {} can be at most", m_study.conditions.size(), kMostConditions);
        for (const Condition &condition : m_study.conditions) {
            if (condition.levels.size() != m_study.factors.size()) {
                broken("the rail {} has {} levels for {} factors", condition.id.value,
                       condition.levels.size(), m_study.factors.size());
                continue;
            }
            for (std::size_t i = 0; i < condition.levels.size(); ++i) {
                const Factor &factor = m_study.factors[i];
                if (!factor.unit.empty() && !parseTypedNumber(condition.levels[i]))
                    broken("the rail {} has \"{}\" for {}, which is in {}: a number is wanted",
                           condition.id.value, condition.levels[i], factor.name, factor.unit);
            }
        }
    }

    /// A summary that cannot be goes; nothing else hangs on it.
    void checkSummaries()
    {
        for (std::size_t i = 0; i < m_study.conditions.size(); ++i) {
            std::set<std::pair<Method, std::string>> known;
            std::vector<RailSummary> sound;
            for (const RailSummary &summary : m_study.conditions[i].summaries) {
                const bool isNew = known.insert({summary.test, summary.property}).second;
                const std::string trouble = isNew ? troubleOf(summary) : "there are two of them";
                if (trouble.empty())
                    sound.push_back(summary);
                else
                    mendable("a summary of the rail {} was left out: {}", m_study.conditions[i].id.value,
                             trouble);
            }
            if (m_mends != nullptr)
                m_mends->conditions[i].summaries = std::move(sound);
        }
    }

    void checkPieces()
    {
        for (const Piece &piece : m_study.pieces) {
            if (!m_rails.contains(piece.condition))
                broken("piece {} is on the rail {}, which is no rail of its study", piece.code,
                       piece.condition.value);
            if (findTest(m_study, piece.test) == nullptr)
                broken("piece {} is for {}, which is no test of its study", piece.code,
                       methodName(piece.test));
            for (const auto &[marker, placed] : piece.markers) {
                if (!isKnownMarker(marker))
                    broken("piece {} has a marker \"{}\", which is not known", piece.code, marker);
            }
        }
    }

    void checkReference()
    {
        if (m_study.conditions.empty() ? m_study.reference == ConditionId{}
                                       : m_rails.contains(m_study.reference))
            return;
        const bool hasRails = !m_study.conditions.empty();
        mendable("the reference ({}) is no rail of the study: {}", m_study.reference.value,
                 hasRails ? "the first rail is taken for it" : "there is none until there are rails");
        if (m_mends != nullptr)
            m_mends->reference = hasRails ? m_study.conditions.front().id : ConditionId{};
    }

    void checkDifference()
    {
        if (std::isfinite(m_study.smallestDifference) && m_study.smallestDifference >= 0.0)
            return;
        mendable("the smallest difference that matters is {:g}, which cannot be: the usual {:g} % is taken",
                 m_study.smallestDifference, 100.0 * kUsualDifference);
        if (m_mends != nullptr)
            m_mends->smallestDifference = kUsualDifference;
    }

    void checkSections()
    {
        for (std::size_t i = 0; i < m_study.pieces.size(); ++i) {
            const Piece &piece = m_study.pieces[i];
            if (!piece.section || isPossible(*piece.section))
                continue;
            mendable("piece {} has a section of no size: it counts as not measured", piece.code);
            if (m_mends != nullptr)
                m_mends->pieces[i].section.reset();
        }
    }

    void checkCodes()
    {
        std::set<std::string> known;
        for (const Piece &piece : m_study.pieces)
            known.insert(piece.code);
        std::set<std::string> seen;
        for (std::size_t i = 0; i < m_study.pieces.size(); ++i) {
            const Piece &piece = m_study.pieces[i];
            if (!piece.code.empty() && seen.insert(piece.code).second)
                continue;
            std::string fresh = fmt::format("{}#{}", piece.code, piece.id.value);
            while (!known.insert(fresh).second)
                fresh += '#';
            mendable("{}: one of them is called {} now",
                     piece.code.empty() ? std::string("a piece has no code")
                                        : fmt::format("two pieces are called {}", piece.code),
                     fresh);
            if (m_mends != nullptr)
                m_mends->pieces[i].code = fresh;
        }
    }

    /// References of plan and log to pieces and rails that are not there say nothing about those that are.
    void checkPlan()
    {
        const auto isGone = [this](PieceId id) { return !m_pieces.contains(id); };
        std::size_t gone = 0;
        for (const PrintedPlate &plate : m_study.plan.print.printed)
            gone += static_cast<std::size_t>(
                std::count_if(plate.pieces.begin(), plate.pieces.end(),
                              [&](const PlacedPiece &placed) { return isGone(placed.piece); }));
        gone += static_cast<std::size_t>(
            std::count_if(m_study.plan.addedLater.begin(), m_study.plan.addedLater.end(), isGone));
        for (const auto &[rail, figure] : m_study.plan.print.slicer)
            gone += static_cast<std::size_t>(m_rails.contains(rail) ? 0 : 1);
        if (gone == 0)
            return;
        mendable("the plan names {} pieces or rails that are not in the study: it names them no more", gone);
        if (m_mends == nullptr)
            return;
        PrintPlan &print = m_mends->plan.print;
        for (PrintedPlate &plate : print.printed)
            std::erase_if(plate.pieces, [&](const PlacedPiece &placed) { return isGone(placed.piece); });
        std::erase_if(m_mends->plan.addedLater, isGone);
        std::erase_if(print.slicer, [this](const auto &entry) { return !m_rails.contains(entry.first); });
    }

    const Study &m_study;
    Study *m_mends;
    StudyFindings m_findings;
    std::set<ConditionId> m_rails;
    std::set<PieceId> m_pieces;
};

} // namespace

StudyFindings checkStudy(const Study &study)
{
    return ContentCheck(study, nullptr).run();
}

std::vector<std::string> mendStudy(Study &study)
{
    StudyFindings findings = checkStudy(study);
    if (findings.mendable.empty())
        return {};
    const Study asItWas = study;
    return ContentCheck(asItWas, &study).run().mendable;
}

} // namespace inchpeg
