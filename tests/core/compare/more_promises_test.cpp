// SPDX-License-Identifier: GPL-3.0-or-later
// How often what is said beyond the rails is wrong, against what it promises. The table of docs/validation.md
// is this test with INCHPEG_CALIBRATION=10000.
#include "core/base/random.h"
#include "core/compare/answers.h"
#include "core/compare/verdict.h"
#include "core/logbook/log_answers.h"
#include "support/calibration.h"
#include "support/study_builder.h"

#include <algorithm>

namespace inchpeg
{

namespace
{

using Shift = std::function<double(int rail, int piece)>;

/// Logarithms scatter by cv around 40 MPa, shifted.
test::StudyBuilder drawn(Random &random, int rails, int pieces, double cv, const Shift &shift)
{
    test::StudyBuilder builder;
    for (int rail = 0; rail < rails; ++rail) {
        std::vector<double> values;
        for (int piece = 0; piece < pieces; ++piece)
            values.push_back(40.0 * std::exp(shift(rail, piece) + cv * random.normal()));
        builder.rail(std::to_string(220 + 10 * rail), values);
    }
    return builder;
}

bool claimsAny(const test::StudyBuilder &builder)
{
    const StudyVerdict told = verdictOf(builder.study, test::strengthCompared(builder));
    return std::any_of(told.rails.begin(), told.rails.end(), [](const RailVerdict &rail) {
        return rail.standing == Standing::Higher || rail.standing == Standing::Lower;
    });
}

bool saysGoodEnough(const test::StudyBuilder &builder)
{
    for (const std::string &sentence :
         textsOf(questionAnswers(builder.study, test::strengthCompared(builder), {}))) {
        if (sentence.starts_with("Good enough"))
            return true;
    }
    return false;
}

/// Each rail on the same plates, so many pieces of it on each.
void printOnSharedPlates(test::StudyBuilder &builder, int plates)
{
    std::vector<PrintedPlate> printed(static_cast<std::size_t>(plates));
    std::map<ConditionId, std::size_t> next;
    for (const Piece &piece : builder.study.pieces) {
        PrintedPlate &plate = printed[next[piece.condition]++ % printed.size()];
        plate.pieces.push_back({piece.id, 0, 0, 10, 10, 1});
    }
    for (std::size_t i = 0; i < printed.size(); ++i)
        printed[i].number = static_cast<int>(i) + 1;
    builder.study.plan.print.printed = printed;
}

/// A claim by the rails with their plates taken out: an interval of the sentence that leaves out 0.
bool claimsWithoutPlates(const test::StudyBuilder &builder)
{
    const StudyComparison comparison = test::strengthCompared(builder);
    const bool claims = claimsAny(builder);
    for (const LogAnswer &answer : logAnswers(builder.study, comparison, {})) {
        if (answer.text.starts_with("Plates scatter"))
            return answer.changesClaims != claims; // two rails: one claim that changes, or stands
    }
    return claims;
}

} // namespace

TEST(MorePromises, GoodEnoughIsSeldomSaidOfARailOnTheMargin)
{
    Random random(test::simulationSeed(21));
    for (const auto &[rails, pieces, cv, name] :
         {std::tuple{2, 3, 0.03, "good enough, 2 rails of 3, 3 %, on the margin"},
          {3, 4, 0.05, "good enough, 3 rails of 4, 5 %, all on the margin"},
          {5, 6, 0.08, "good enough, 5 rails of 6, 8 %, all on the margin"}}) {
        test::simulatedShare(name, test::atMost(0.05, 0.005), [&, rails = rails, pieces = pieces, cv = cv] {
            test::StudyBuilder builder = drawn(random, rails, pieces, cv,
                                               [](int rail, int) { return rail == 0 ? 0.0 : std::log(0.9); });
            builder.study.plan.aim.comparison = Comparison::GoodEnough;
            return saysGoodEnough(builder);
        });
    }
}

TEST(MorePromises, PairsClaimNoMoreOftenThanTheySay)
{
    Random random(test::simulationSeed(22));
    for (const auto &[rails, pieces, name] :
         {std::tuple{2, 3, "before and after, 3 pairs that differ by 20 %"},
          {4, 5, "before and after, 3 times 5 pairs that differ by 20 %"}}) {
        test::simulatedShare(name, test::atMost(0.05, 0.005), [&, rails = rails, pieces = pieces] {
            std::vector<double> own;
            for (int i = 0; i < pieces; ++i)
                own.push_back(0.2 * random.normal());
            test::StudyBuilder builder = drawn(random, rails, pieces, 0.03, [&](int, int piece) {
                return own[static_cast<std::size_t>(piece)];
            });
            builder.study.plan.aim.comparison = Comparison::BeforeAfter;
            return claimsAny(builder);
        });
    }
}

TEST(MorePromises, PlatesMakeNoClaims)
{
    Random random(test::simulationSeed(23));
    constexpr double kPlateSd = 0.05;
    const auto drawOnPlates = [&](double lift) {
        double plates[3];
        for (double &plate : plates)
            plate = kPlateSd * random.normal();
        test::StudyBuilder builder = drawn(random, 2, 6, 0.03, [&](int rail, int piece) {
            return plates[piece % 3] + (rail == 1 ? lift : 0.0);
        });
        printOnSharedPlates(builder, 3);
        return builder;
    };
    // Plates that all rails share widen, and do not mislead.
    test::simulatedShare("2 rails of 6 on 3 plates that scatter by 5 %, pieces by 3 %: wrong",
                         test::atMost(0.05, 0.005), [&] { return claimsAny(drawOnPlates(0.0)); });
    test::simulatedShare("the same with the plates taken out: wrong", test::atMost(0.05, 0.01),
                         [&] { return claimsWithoutPlates(drawOnPlates(0.0)); });
    const double found = test::simulatedShare("the same, a difference of 8 %: found as it stands", {},
                                              [&] { return claimsAny(drawOnPlates(0.08)); });
    const double foundWithout = test::simulatedShare("… and with the plates taken out", {},
                                                     [&] { return claimsWithoutPlates(drawOnPlates(0.08)); });
    EXPECT_GT(foundWithout, found) << "what plates hide";
}

namespace
{

/// Whether any sentence of a comparison says that something differs, bends or is best.
bool saysAnything(const test::StudyBuilder &builder)
{
    if (claimsAny(builder))
        return true;
    for (const std::string &sentence :
         textsOf(questionAnswers(builder.study, test::strengthCompared(builder), {}))) {
        for (const char *claim : {"rises", "falls", "turns", "slope changes", " is the best", " above "}) {
            if (sentence.find(claim) != std::string::npos)
                return true;
        }
    }
    return false;
}

bool saysTrend(const test::StudyBuilder &builder)
{
    for (const std::string &sentence :
         textsOf(questionAnswers(builder.study, test::strengthCompared(builder), {}))) {
        if (sentence.find("rises") != std::string::npos || sentence.find("falls") != std::string::npos)
            return true;
    }
    return false;
}

} // namespace

// All that is said of one response where nothing differs: the trend at 5 %, and what is beyond it at a fifth
// of that (docs/methods.md, "One family").
TEST(MorePromises, ATrendStudysSentencesTogetherKeepOneLevel)
{
    Random random(test::simulationSeed(31));
    for (const auto &[rails, pieces, name] :
         {std::tuple{4, 5, "a trend over 4 rails of 5, all sentences together"},
          {3, 3, "a trend over 3 rails of 3, all sentences together"},
          {7, 4, "a trend over 7 rails of 4, all sentences together"}}) {
        test::simulatedShare(name, test::atMost(0.06, 0.005), [&, rails = rails, pieces = pieces] {
            test::StudyBuilder builder = drawn(random, rails, pieces, 0.05, [](int, int) { return 0.0; });
            builder.study.plan.aim.comparison = Comparison::Trend;
            return saysAnything(builder);
        });
    }
    // A peak in the middle has no trend: it is found all the same.
    test::simulatedShare("a peak of 20 % amid 5 rails of 5, 4 %: told", test::atLeast(0.95), [&] {
        test::StudyBuilder builder =
            drawn(random, 5, 5, 0.04, [](int rail, int) { return rail == 2 ? 0.2 : 0.0; });
        builder.study.plan.aim.comparison = Comparison::Trend;
        return claimsAny(builder);
    });
    // The trend itself is found as often as the plan promises: its own level is not touched.
    test::simulatedShare("a trend of 10 % over 4 rails of 5, 5 %: told", test::atLeast(0.8), [&] {
        test::StudyBuilder builder =
            drawn(random, 4, 5, 0.05, [](int rail, int) { return 0.1 * rail / 3.0; });
        builder.study.plan.aim.comparison = Comparison::Trend;
        return saysTrend(builder);
    });
}

// "The best" and "not told apart" of the same two rails are never said together.
TEST(MorePromises, TheBestIsToldApartFromEachOther)
{
    Random random(test::simulationSeed(32));
    int bests = 0;
    for (const Comparison comparison : {Comparison::AllPairs, Comparison::AgainstReference}) {
        for (int i = 0; i < test::simulatedStudies(); ++i) {
            test::StudyBuilder builder =
                drawn(random, 4, 3, 0.05, [](int rail, int) { return rail == 3 ? 0.14 : 0.02 * rail; });
            builder.study.plan.aim.comparison = comparison;
            const StudyComparison compared = test::strengthCompared(builder);
            const std::vector<ConditionId> best = mayBeBest(builder.study, compared);
            if (best.size() != 1)
                continue;
            ++bests;
            const std::vector<std::string> texts = textsOf(questionAnswers(builder.study, compared, {}));
            for (const std::string &text : texts) {
                if (!text.starts_with("Each with each"))
                    continue;
                for (const Condition &other : builder.study.conditions) {
                    if (other.id == best.front())
                        continue;
                    const std::string above =
                        distinctTitle(builder.study, *findCondition(builder.study, best.front())) +
                        " above " + distinctTitle(builder.study, other);
                    EXPECT_NE(text.find(above), std::string::npos) << text;
                }
            }
            for (const RailComparison &rail : compared.rails) {
                const bool isBesideBest =
                    rail.condition == best.front() || compared.rails.front().condition == best.front();
                if (rail.effect && isBesideBest) {
                    EXPECT_TRUE(rail.effect->isClear());
                }
            }
        }
    }
    EXPECT_GT(bests, 10);
}

} // namespace inchpeg
