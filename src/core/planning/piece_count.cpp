// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/planning/piece_count.h"

#include "core/compare/comparison.h"
#include "core/compare/graded.h"
#include "core/model/study_edit.h"
#include "core/planning/plate_power.h"
#include "core/units/number.h"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>

namespace inchpeg
{

namespace
{

std::string piecesText(int n)
{
    constexpr const char *kNumberWords[] = {"no", "one", "two", "three", "four", "five", "six"};
    return fmt::format("{} piece{}", n < 7 ? kNumberWords[n] : std::to_string(n), n == 1 ? "" : "s");
}

std::string capitalised(std::string text)
{
    if (!text.empty() && text[0] >= 'a' && text[0] <= 'z')
        text[0] = static_cast<char>(text[0] - 'a' + 'A');
    return text;
}

std::string chanceText(double power)
{
    if (power >= 0.995)
        return "almost every time";
    if (power >= 0.95)
        return fmt::format("{:.0f} times in 100", 100.0 * power);
    if (power >= 0.85)
        return fmt::format("{:.0f} times in 10", 10.0 * power);
    if (power >= 0.775)
        return "4 times in 5";
    return fmt::format("{:.0f} times in 100", 100.0 * power);
}

/// What a plan shows when it succeeds, and what it is then not told.
struct PlanWords {
    std::string_view shows;   ///< of the difference
    std::string_view matters; ///< "A difference of 10 %, which matters, would be found only …"
    std::string_view seen;    ///< "12 % or more is seen …"
    std::string_view shown;   ///< "10 % would be found …"
};
PlanWords planWords(const PowerQuestion &question)
{
    if (question.isBothSides)
        return {"that a rail like the reference is at most {} away from it",
                "That it is at most {} away would be shown only", "at most {} away",
                "at most {} away would be shown"};
    if (question.comparison == Comparison::GoodEnough)
        return {"that a rail like the reference is at most {} worse",
                "That it is at most {} worse would be shown only", "at most {} worse",
                "at most {} worse would be shown"};
    return {"a difference of {} or more", "A difference of {}, which matters, would be found only",
            "{} or more", "{} would be found"};
}

/// Those printed like the reference; the others are shown beside them, not tested.
int comparedRails(const Study &study)
{
    const Condition *reference = findCondition(study, study.reference);
    const auto alike =
        std::count_if(study.conditions.begin(), study.conditions.end(), [&](const Condition &condition) {
            return reference == nullptr || condition.orientation == reference->orientation;
        });
    return std::max(2, static_cast<int>(alike));
}

Better betterOf(const PlannedTest &test)
{
    const Reduction *reduction = reductionOf(test.method);
    const Result<Property> property = reduction == nullptr ? Result<Property>(usualProperty(test.method))
                                                           : findProperty(*reduction, test.property.name);
    return property ? property->better : Better::Higher;
}

} // namespace

std::string_view comparisonWords(Comparison comparison)
{
    switch (comparison) {
    case Comparison::TwoGroups:
        return "two rails with each other";
    case Comparison::AgainstReference:
        return "each rail with the reference";
    case Comparison::AllPairs:
        return "each rail with each";
    case Comparison::AnyDifference:
        return "whether any rail differs";
    case Comparison::Trend:
        return "a trend over the levels";
    case Comparison::BeforeAfter:
        return "before and after, piece by piece";
    case Comparison::GoodEnough:
        return "whether each is good enough beside the reference";
    }
    throw ContractViolation("unknown comparison");
}

double plannedShare(const Study &study, const OwnResults &own)
{
    const std::optional<double> &said = study.plan.aim.absoluteDifference;
    const Condition *reference = findCondition(study, study.reference);
    if (!said || reference == nullptr)
        return study.smallestDifference;
    const std::optional<ExpectedValue> expected =
        expectedValue(study, plannedTests(study).front(), *reference, own);
    return expected && expected->value > 0.0 ? *said / expected->value : study.smallestDifference;
}

PieceQuestion pieceQuestion(const Study &study, const OwnResults &own)
{
    PieceQuestion question;
    question.cv = expectedScatter(study, own).cv;
    question.difference = plannedShare(study, own);
    question.tested = std::max(0, firstTest(study).piecesPerCondition - study.plan.aim.spares);
    question.power.comparison = familyOf(study);
    question.power.groups = comparedRails(study);
    if (question.power.comparison == Comparison::Trend) {
        const Result<std::vector<double>> positions = trendPositions(study);
        question.power.positions = positions ? *positions : std::vector<double>{0.0}; // refused by powerOf()
    }
    question.power.alpha = 1.0 - study.plan.aim.confidence;
    question.power.isOwnScatter = true;
    if (study.plan.aim.looks && question.tested >= 2) // what the looks before have left for the last one
        question.power.alpha =
            levelsOfStudyLooks(question.tested, question.power.alpha, *study.plan.aim.looks).back();
    const PlannedTest first = plannedTests(study).front();
    question.asRatio = first.property.dimension != Dimension::Temperature;
    // As the verdict will ask: to the worse side, or to both where nobody says which one that is.
    const Better better = betterOf(first);
    const bool isOfMargin = question.power.comparison == Comparison::GoodEnough;
    question.power.isBothSides = isOfMargin && better == Better::Neither;
    question.isDownwards = isOfMargin && better == Better::Higher;
    question.power.difference_sd = (!question.asRatio      ? question.difference
                                    : question.isDownwards ? -std::log1p(-question.difference)
                                                           : std::log1p(question.difference)) /
                                   question.cv;
    return question;
}

double shareVisible(const PieceQuestion &question, double difference_sd)
{
    const double difference = difference_sd * question.cv;
    if (question.asRatio && question.isDownwards)
        return -std::expm1(-difference);
    return question.asRatio ? std::expm1(difference) : difference;
}

Result<std::vector<double>> trendPositions(const Study &study)
{
    std::optional<std::vector<double>> found;
    for (std::size_t f = 0; f < study.factors.size(); ++f) {
        std::vector<double> positions;
        for (const Condition &condition : study.conditions) {
            const std::optional<double> level =
                f < condition.levels.size() ? parseTypedNumber(condition.levels[f]) : std::nullopt;
            if (level)
                positions.push_back(*level);
        }
        const bool isNumeric = positions.size() == study.conditions.size() && !positions.empty();
        if (isNumeric && found)
            return invalidArgument(
                "a trend is planned over one factor with numbers as levels; this study has more "
                "than one: plan it over one of them, or compare the rails");
        if (isNumeric)
            found = std::move(positions);
    }
    if (!found)
        return invalidArgument(
            "a trend needs levels that are numbers, such as 230 and 250 °C; between names there is "
            "none: compare the rails with each other");
    return *found;
}

Result<std::vector<VisibleDifference>> visibleDifferences(const PieceQuestion &question, double power,
                                                          int upTo)
{
    std::vector<VisibleDifference> curve;
    for (int n = 2;; n += n < 8 ? 1 : n < 16 ? 2 : n < 40 ? 6 : 20) {
        const Result<double> visible = visibleDifference_sd(question.power, n, power);
        if (!visible)
            return visible.error();
        curve.push_back({n, shareVisible(question, *visible)});
        if (n >= upTo)
            return curve;
    }
}

namespace
{

/// Grades have no size that could be planned for: what counts is how many pieces ranks need to show anything.
PieceAnswer answerForGrades(const Study &study, const PieceQuestion &question)
{
    PieceAnswer answer;
    if (usualProperty(methodOf(study)).scale == Scale::Word) {
        answer.sentence =
            "Words are listed and counted, not compared: two or three pieces a rail show whether it "
            "happens every time.";
        return answer;
    }
    const int others = std::max(1, question.power.groups - 1);
    const auto least = static_cast<int>(leastGraded(static_cast<std::size_t>(others), question.power.alpha));
    answer.wanted = least;
    answer.sentence = fmt::format("Grades are compared by their order. Against {} other rail{}, {} a rail "
                                  "can show a difference where every "
                                  "piece is graded above every other; smaller ones want more.",
                                  others, others == 1 ? "" : "s", piecesText(least));
    if (question.tested < least)
        answer.sentence += fmt::format(" With {} nothing can be shown, however clear it feels.",
                                       piecesText(question.tested));
    return answer;
}

} // namespace

Result<PieceAnswer> pieceAnswer(const Study &study, const OwnResults &own, const Notation &notation)
{
    if (study.plan.aim.comparison == Comparison::Trend) {
        if (const Result<std::vector<double>> positions = trendPositions(study); !positions)
            return positions.error();
    }
    const PieceQuestion question = pieceQuestion(study, own);
    const double power = study.plan.aim.power;
    if (!hasMean(usualProperty(methodOf(study))))
        return answerForGrades(study, question);
    PieceAnswer answer;
    const int most = kMostPiecesPerCondition - study.plan.aim.spares;
    const Result<Power> atMost = powerOf(question.power, most);
    if (!atMost)
        return atMost.error();
    if (atMost->power >= power) { // else the search would go far beyond what can be planned
        const Result<Power> wanted = piecesFor(question.power, power);
        if (!wanted)
            return wanted.error();
        answer.wanted = wanted->piecesPerGroup;
    }
    const bool possible = answer.wanted > 0 && answer.wanted <= most;
    const std::optional<double> &said = study.plan.aim.absoluteDifference;
    const std::string matters =
        said ? notation.quantity(*said, differenceOf(plannedTests(study).front().property.dimension), 3)
             : notation.percent(question.difference);
    const PlanWords words = planWords(question.power);
    const std::string needs =
        possible
            ? fmt::format("plan {} a rail{}", piecesText(answer.wanted),
                          study.plan.aim.spares > 0 ? fmt::format(" and {} to spare", study.plan.aim.spares)
                                                    : std::string())
            : fmt::format("more than {} a rail would be needed: look for a larger "
                          "difference, or for less scatter",
                          kMostPiecesPerCondition);
    if (question.tested < 2) {
        answer.sentence =
            fmt::format("{} a rail shows no scatter: no difference, however large, can be called "
                        "real. To see {}, {}.",
                        capitalised(piecesText(question.tested)), matters, needs);
    } else {
        const Result<Power> now = powerOf(question.power, question.tested);
        const Result<double> visible = visibleDifference_sd(question.power, question.tested, power);
        if (!now)
            return now.error();
        if (!visible)
            return visible.error();
        answer.power = now->power;
        answer.noncentrality = now->noncentrality;
        answer.visible = shareVisible(question, *visible);
        answer.sentence = fmt::format(
            "{} a rail show {} {}, where pieces scatter by {}.", capitalised(piecesText(question.tested)),
            fmt::format(fmt::runtime(words.shows), notation.percent(answer.visible)), chanceText(power),
            notation.percent(question.cv));
        if (question.tested >= answer.wanted && answer.wanted > 0)
            answer.sentence += fmt::format(" Enough for the {} that matters", matters) +
                               (question.tested > answer.wanted + 1
                                    ? fmt::format("; {} would do.", piecesText(answer.wanted))
                                    : std::string("."));
        else
            answer.sentence += fmt::format(" {} {}: {}.", fmt::format(fmt::runtime(words.matters), matters),
                                           chanceText(answer.power), needs);
    }
    if (const std::optional<PlatePower> plates = platePower(study, question, notation))
        answer.byPlates = plates->sentence;
    for (const int n : {2, 3}) {
        const Result<Power> few = powerOf(question.power, n);
        const Result<double> visible = visibleDifference_sd(question.power, n, power);
        if (few && visible)
            answer.few.push_back(fmt::format(
                "{} a rail: {} is seen {}; {} {}.", capitalised(piecesText(n)),
                fmt::format(fmt::runtime(words.seen), notation.percent(shareVisible(question, *visible))),
                chanceText(power), fmt::format(fmt::runtime(words.shown), matters), chanceText(few->power)));
    }
    return answer;
}

} // namespace inchpeg
