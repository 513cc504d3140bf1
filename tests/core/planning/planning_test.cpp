// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/base/random.h"
#include "core/model/factor.h"
#include "core/planning/lab_code.h"
#include "core/planning/piece_count.h"
#include "core/planning/plate_power.h"
#include "core/planning/print_estimate.h"
#include "core/stats/simultaneous.h"
#include "support/calibration.h"
#include "support/study_builder.h"

#include <cmath>
#include <numbers>
#include <set>

namespace inchpeg
{
namespace
{

using test::StudyBuilder;

TEST(LabCode, HasNoSymbolThatCanBeMisread)
{
    EXPECT_EQ(codeSymbols().size(), 32U);
    EXPECT_EQ(codeSymbols().find_first_of("O0I1"), std::string_view::npos);
    for (std::int64_t id = 1; id < 5000; id += 7)
        EXPECT_EQ(labCode("K7M", PieceId{id}).find_first_of("O0I1"), std::string::npos);
}

TEST(BlindCode, NoTwoPiecesMeetAndNeighboursShareNothing)
{
    std::set<std::string> codes;
    constexpr std::int64_t kPieces = 20000;
    std::size_t sameFirst = 0;
    for (std::int64_t id = 1; id <= kPieces; ++id) {
        const std::string code = blindCode("K7M", PieceId{id});
        codes.insert(code);
        EXPECT_EQ(code.size(), 6U);
        EXPECT_EQ(pieceOfLabel("K7M", code), PieceId{id}) << code;
        sameFirst += code[1] == blindCode("K7M", PieceId{id + 1})[1] ? 1U : 0U;
    }
    EXPECT_EQ(codes.size(), static_cast<std::size_t>(kPieces));
    EXPECT_LT(sameFirst, 2U * kPieces / 32U) << "as often as drawn symbols do";
    for (const std::int64_t id :
         {std::int64_t{1} << 20, (std::int64_t{1} << 30) + 7, (std::int64_t{1} << 53) - 1})
        EXPECT_EQ(pieceOfLabel("K7M", blindCode("K7M", PieceId{id})), PieceId{id});
    EXPECT_EQ(pieceOfLabel("K7M", labCode("K7M", PieceId{12})), PieceId{12}) << "the other labels too";
    EXPECT_FALSE(pieceOfLabel("AAA", labCode("K7M", PieceId{12})));
    for (const char *none : {"", "Z", "52.35", "2345678", "A1", "ZZZZZ"})
        EXPECT_FALSE(pieceOfLabel("K7M", none)) << none;
}

TEST(LabCode, IsReadBackHoweverItIsTyped)
{
    const std::string code = labCode("K7M", PieceId{12345});
    for (const std::string &typed :
         {code, std::string("k7m ") + code.substr(4), code.substr(0, 3) + code.substr(4)}) {
        const std::optional<ReadCode> read = readLabCode(typed);
        ASSERT_TRUE(read) << typed;
        EXPECT_EQ(read->prefix, "K7M");
        EXPECT_EQ(read->piece, PieceId{12345});
    }
    EXPECT_EQ(labCode("K7M", PieceId{1}).size(), 8U) << "three symbols, a dash, three and a check";
    EXPECT_EQ(readLabCode(labCode("AAA", PieceId{(std::int64_t{1} << 53) - 1}))->piece.value,
              (std::int64_t{1} << 53) - 1);
}

TEST(LabCode, TellsEveryWrongSymbolAndNearlyEverySwap)
{
    Random random(3);
    int swaps = 0;
    int missed = 0;
    for (int i = 0; i < 300; ++i) {
        const std::string code = labCode(labPrefix(static_cast<std::uint64_t>(i)),
                                         PieceId{static_cast<std::int64_t>(1 + random.below(1U << 20U))});
        for (std::size_t at = 0; at < code.size(); ++at) {
            if (code[at] == '-')
                continue;
            std::string wrong = code;
            for (const char symbol : codeSymbols()) {
                wrong[at] = symbol;
                EXPECT_EQ(readLabCode(wrong).has_value(), symbol == code[at]) << wrong;
            }
            if (at + 1 < code.size() && code[at + 1] != '-' && code[at] != code[at + 1]) {
                std::string swapped = code;
                std::swap(swapped[at], swapped[at + 1]);
                ++swaps;
                missed += readLabCode(swapped) ? 1 : 0;
            }
        }
    }
    EXPECT_LT(missed, swaps / 200);
}

TEST(LabCode, RefusesWhatIsNoCode)
{
    for (const char *text : {"", "K7M", "K7M-A", "K7M-AOA2", "K7M-AAAA-BBBB-CCCC-DDDD-EEEE"})
        EXPECT_FALSE(readLabCode(text)) << text;
    EXPECT_TRUE(isLabPrefix(labPrefix(1)));
    EXPECT_FALSE(isLabPrefix("O0A"));
}

TEST(PieceCount, SaysWhatThePlanCanShow)
{
    StudyBuilder builder;
    for (const char *level : {"230", "250"})
        builder.rail(level, {}, Orientation::Flat, 6);
    builder.study.plan.aim.cv = 0.05;
    builder.study.smallestDifference = 0.10;
    const Result<PieceAnswer> answer = pieceAnswer(builder.study, {});
    ASSERT_TRUE(answer);
    // A ratio of 1.1 with pieces that scatter by 5 % of their mean: d = ln(1.1)/0.05 = 1.906. By Welch's test
    // six a group find it in 83.17 % (SciPy 1.10.1, t, norm and chi2 over a grid of 2,000 × 2,000 scatters;
    // Student's test 84.4 %).
    EXPECT_EQ(answer->wanted, 6);
    EXPECT_NEAR(answer->power, 0.8317, 0.002);
    EXPECT_NE(answer->sentence.find("Enough for the 10 % that matters."), std::string::npos)
        << answer->sentence;
    ASSERT_EQ(answer->few.size(), 2U);
    // exp(0.05 · 10.39) = 1.68, by the same grid, whose corners count most for two pieces.
    EXPECT_TRUE(answer->few[0].starts_with("Two pieces a rail: 68 % or more") ||
                answer->few[0].starts_with("Two pieces a rail: 69 % or more"))
        << answer->few[0];
}

// Rails on plates of their own: a value is the mean of a plate. Two plates of three, pieces 5 %, plates 3 %:
// √(0.03² + 0.05²/3) = 4.163 % a plate, Welch's test of two and two: 10.39 of these are seen 4 times in 5
// (the grid of SaysWhatThePlanCanShow), exp(10.39 · 0.04163) - 1 = 54 %.
TEST(PieceCount, CountsPlatesWhereRailsHavePlatesOfTheirOwn)
{
    StudyBuilder builder;
    for (const char *level : {"230", "250"})
        builder.rail(level, {}, Orientation::Flat, 6);
    builder.study.plan.aim.cv = 0.05;
    builder.study.factors.front().changedPer = ChangedPer::Piece;
    EXPECT_EQ(ownPlatesARail(builder.study), 0);
    EXPECT_TRUE(pieceAnswer(builder.study, {})->byPlates.empty());
    builder.study.factors.front().changedPer = ChangedPer::Plate;
    EXPECT_EQ(ownPlatesARail(builder.study), 1);
    EXPECT_NE(pieceAnswer(builder.study, {})->byPlates.find("Print in two rounds or more"),
              std::string::npos);
    builder.study.plan.print.rounds = 2;
    builder.study.plan.aim.plateCv = 0.03;
    const std::optional<PlatePower> plates = platePower(builder.study, pieceQuestion(builder.study, {}), {});
    ASSERT_TRUE(plates);
    EXPECT_EQ(plates->plates, 2);
    EXPECT_NEAR(plates->visible, std::expm1(10.39 * std::sqrt(0.03 * 0.03 + 0.05 * 0.05 / 3.0)), 0.02);
    EXPECT_NE(plates->sentence.find("with 2 plates a rail that scatter by 3.0 % (set by you)"),
              std::string::npos)
        << plates->sentence;
    const double two = plates->power;
    builder.study.plan.print.rounds = 3;
    EXPECT_GT(platePower(builder.study, pieceQuestion(builder.study, {}), {})->power, 2.0 * two);
    builder.study.plan.aim.comparison = Comparison::BeforeAfter;
    EXPECT_TRUE(pieceAnswer(builder.study, {})->byPlates.empty());
}

// The plan's promise by plates, kept: rails that differ by what is said to be visible are told apart 4 times
// in 5 where each plate's mean is one value.
TEST(PromisedPlates, APlanByPlatesFindsWhatItSays)
{
    StudyBuilder builder;
    for (const char *level : {"230", "250", "270"})
        builder.rail(level, {}, Orientation::Flat, 8);
    builder.study.factors.front().changedPer = ChangedPer::Plate;
    builder.study.plan.aim.cv = 0.04;
    builder.study.plan.aim.plateCv = 0.03;
    builder.study.plan.print.rounds = 4;
    const PlatePower plates = *platePower(builder.study, pieceQuestion(builder.study, {}), {});
    Random random(test::simulationSeed(1917));
    const auto means = [&](double ratio) { // of four plates of two pieces each
        std::vector<double> values;
        for (int plate = 0; plate < 4; ++plate) {
            const double shift = 0.03 * random.normal();
            values.push_back(40.0 * ratio * std::exp(shift + 0.02 * (random.normal() + random.normal())));
        }
        return values;
    };
    test::simulatedShare("3 rails on 4 plates of 2 each: found by plates as the plan says",
                         test::near(0.8, 0.03), [&] {
                             const std::vector<Group> groups{
                                 {"a", means(1.0)}, {"b", means(1.0 + plates.visible)}, {"c", means(1.0)}};
                             return SimultaneousComparison::of(groups, 0, {})->effect(0, 1)->isClear();
                         });
}

TEST(PieceCount, CountsSparesAndSmallPlansOut)
{
    StudyBuilder builder;
    for (const char *level : {"230", "240", "250"})
        builder.rail(level, {}, Orientation::Flat, 3);
    builder.study.plan.aim.cv = 0.08;
    builder.study.plan.aim.spares = 2;
    EXPECT_NE(pieceAnswer(builder.study, {})->sentence.find("shows no scatter"), std::string::npos);
    builder.study.plan.aim.spares = 0;
    const Result<PieceAnswer> answer = pieceAnswer(builder.study, {});
    EXPECT_NE(answer->sentence.find("would be found only"), std::string::npos) << answer->sentence;
    EXPECT_NE(answer->sentence.find("plan 15 pieces a rail"), std::string::npos) << answer->sentence;
    builder.study.smallestDifference = 0.001;
    EXPECT_NE(pieceAnswer(builder.study, {})->sentence.find("more than 200"), std::string::npos);
}

TEST(PieceCount, TheCurveFalls)
{
    StudyBuilder builder;
    for (const char *level : {"230", "240", "250", "260"})
        builder.rail(level, {}, Orientation::Flat, 5);
    const auto curve = visibleDifferences(pieceQuestion(builder.study, {}), 0.8, 30);
    ASSERT_TRUE(curve);
    EXPECT_EQ(curve->front().pieces, 2);
    EXPECT_GE(curve->back().pieces, 30);
    for (std::size_t i = 1; i < curve->size(); ++i)
        EXPECT_LT((*curve)[i].difference, (*curve)[i - 1].difference);
}

TEST(PieceCount, ScatterAndExpectationSayWhereTheyComeFrom)
{
    StudyBuilder builder;
    builder.rail("230", {}, Orientation::Flat, 3);
    EXPECT_EQ(expectedScatter(builder.study, {}).source, "usual for tension (common practice)");
    const OwnResults own{41.0, 0.031, "of the pieces in this study"};
    EXPECT_DOUBLE_EQ(expectedScatter(builder.study, own).cv, 0.031);
    builder.study.plan.aim.cv = 0.07;
    EXPECT_EQ(expectedScatter(builder.study, own).source, "set by you");
    const auto tests = plannedTests(builder.study);
    const Condition &condition = builder.study.conditions.front();
    EXPECT_DOUBLE_EQ(expectedValue(builder.study, tests.front(), condition, own)->value, 41.0);
    EXPECT_NE(expectedValue(builder.study, tests.front(), condition, {})->source.find("no known polymer"),
              std::string::npos);
}

class PrintEstimate : public ::testing::Test
{
protected:
    PrintEstimate()
    {
        firstTest(m_builder.study).setup.shape = *findShape("bar-80x10x4");
        firstTest(m_builder.study).method = Method::Bending;
        m_builder.rail("230", {}, Orientation::Flat, 5);
        m_builder.study.conditions.front().material = "styrenic, lot 2";
    }
    PieceEstimate estimate()
    {
        return estimatePiece(m_builder.study, plannedTests(m_builder.study).front(),
                             m_builder.study.conditions.front(), m_workshop);
    }
    StudyBuilder m_builder;
    Workshop m_workshop = usualWorkshop();
};

TEST_F(PrintEstimate, SolidPiecesWeighVolumeTimesDensity)
{
    EXPECT_NEAR(estimate().grams, 3.2 * 1.04, 1e-9);
    m_workshop.spools.push_back({"styrenic, lot 2", 1.10, 30.0, {}, {}, {}, {}, {}});
    EXPECT_NEAR(estimate().grams, 3.2 * 1.10, 1e-9) << "the spool's own density";
}

// Worked by hand for the 80 × 10 × 4 bar, 0.2 mm layers, 0.45 mm lines: 2 walls are 2 · 0.45 · 180 mm of edge
// on 800 mm² of layer, 20.25 %; of the rest half is skin (10 of 20 layers) and half infill of 20 %.
TEST_F(PrintEstimate, WallsAndInfillCount)
{
    m_builder.study.plan.locked = {{"walls", "2"}, {"infill", "20 %"}};
    const double share = 0.2025 + 0.7975 * (0.5 + 0.5 * 0.2);
    EXPECT_NEAR(estimate().grams, 3.2 * 1.04 * share, 1e-9);
    // 3200 mm³ · share at 8 mm³/s, and 20 layers of 1.5 s.
    EXPECT_NEAR(estimate().minutes, (3200.0 * share / 8.0 + 30.0) / 60.0, 1e-9);
}

TEST_F(PrintEstimate, TheSlicersFiguresGoFirst)
{
    m_builder.study.plan.print.slicer[m_builder.study.conditions.front().id] = {3.11, std::nullopt};
    EXPECT_DOUBLE_EQ(estimate().grams, 3.11);
    EXPECT_TRUE(estimate().gramsFromSlicer);
    EXPECT_FALSE(estimate().minutesFromSlicer);
}

TEST_F(PrintEstimate, MoneyIsFilamentAndHours)
{
    m_workshop.spools.push_back({"styrenic, lot 2", {}, 20.0, {}, {}, {}, {}, {}});
    m_workshop.printerRate_per_h = 0.6;
    m_builder.study.plan.print.slicer[m_builder.study.conditions.front().id] = {4.0, 30.0};
    const PrintCost cost = costOf(m_builder.study, m_workshop);
    EXPECT_EQ(cost.pieces, 5);
    EXPECT_NEAR(cost.grams, 20.0, 1e-12);
    EXPECT_NEAR(cost.money, 0.020 * 20.0 + 2.5 * 0.6, 1e-12);
}

TEST_F(PrintEstimate, TellsWhetherTheSpoolSuffices)
{
    m_builder.study.plan.print.slicer[m_builder.study.conditions.front().id] = {10.4, 30.0};
    m_workshop.spools.push_back({"styrenic, lot 2", {}, 20.0, 250.0, 180.0, {}, {}, {}});
    SpoolUse use = spoolUse(m_builder.study, m_workshop).front();
    EXPECT_NEAR(*use.left_g, 18.0, 1e-9);
    // 52 g at 1.04 g/cm³ are 50 cm³ of 1.75 mm filament: 20.8 m.
    EXPECT_NEAR(use.needed_m, 50.0 / (std::numbers::pi * 0.25 * 1.75 * 1.75), 1e-6);
    m_workshop.spools.front().gross_g = 210.0;
    use = spoolUse(m_builder.study, m_workshop).front();
    EXPECT_NE(use.sentence.find("22 g too little"), std::string::npos) << use.sentence;
}

TEST_F(PrintEstimate, DryingHeedsTheSpoolItself)
{
    EXPECT_DOUBLE_EQ(careOf(m_builder.study, m_builder.study.conditions.front(), m_workshop).dry_C, 80.0);
    m_workshop.spools.push_back({"styrenic, lot 2", {}, 20.0, {}, {}, 85.0, 4.0, 70.0});
    const MaterialCare care = careOf(m_builder.study, m_builder.study.conditions.front(), m_workshop);
    EXPECT_DOUBLE_EQ(care.dry_C, 65.0);
    EXPECT_TRUE(care.limitedBySpool);
    m_builder.study.plan.dates.dry = false;
    m_builder.study.plan.dates.conditioning_h = 40.0;
    EXPECT_NE(careOf(m_builder.study, m_builder.study.conditions.front(), m_workshop)
                  .sentence.find("no drying, then 40 h"),
              std::string::npos);
}

// A lying round dog-bone is as high as its grips, 14 mm: 70 layers of 0.2 mm. Of a rod the two skins of 1 mm
// are the circle's segments: 2 · (r² acos((r − h)/r) − (r − h) √(2 r h − h²)) of π r², by hand.
TEST(PrintOfRoundShapes, ALyingRoundPieceIsAsHighAsItsThickestPartAndHasNarrowSkins)
{
    test::StudyBuilder builder;
    builder.rail("230", {}, Orientation::Flat, 1);
    Study &study = builder.study;
    firstTest(study).method = Method::Torsion;
    study.plan.locked = {{"walls", "0"}, {"infill", "20 %"}, {"layer height", "0.2"}};
    firstTest(study).setup.shape = *findShape("shear-pin-8");
    const auto grams = [&] {
        return estimatePiece(study, plannedTests(study).front(), study.conditions.front(), usualWorkshop())
            .grams;
    };
    const double r = 4.0, h = 1.0;
    const double segment = r * r * std::acos((r - h) / r) - (r - h) * std::sqrt(2.0 * r * h - h * h);
    const double skin = 2.0 * segment / (std::numbers::pi * r * r);
    const double density = polymerOf(study, study.conditions.front()).facts->density_g_per_cm3;
    const double solid_g = std::numbers::pi * r * r * 50.0 / 1e3 * density;
    EXPECT_NEAR(grams(), solid_g * (skin + (1.0 - skin) * 0.2), 1e-9);
    // The moves between layers tell their number: 70, not 40.
    firstTest(study).setup.shape = *findShape("torsion-bar-8");
    study.plan.locked = {{"walls", "0"}, {"infill", "0 %"}, {"layer height", "0.2"}};
    const PieceEstimate bar =
        estimatePiece(study, plannedTests(study).front(), study.conditions.front(), usualWorkshop());
    const double laid_mm3 = bar.grams / density * 1e3;
    EXPECT_NEAR(bar.minutes * 60.0 - laid_mm3 / PrinterCard{}.flow_mm3_per_s, 70.0 * 1.5, 0.5);
}

TEST(Annealing, IsWhatTheLevelSaysNotThatThereIsOne)
{
    const auto annealed = [](const char *level) {
        Study study;
        study.factors = {Factor{"annealing", "", ChangedPer::AfterPrint}};
        study.conditions = {Condition{ConditionId{1}, {level}, Orientation::Flat, "polylactide"}};
        return isAnnealed(study, study.conditions.front());
    };
    for (const char *level :
         {"none", "As printed", "no", "0 h", "0", "-", "keine", "wie gedruckt", "not annealed"})
        EXPECT_FALSE(annealed(level)) << level;
    for (const char *level : {"annealed", "yes", "80 °C 1 h", "2 h", "ja"})
        EXPECT_TRUE(annealed(level)) << level;
}

TEST(Library, ANameCloseToAFactorIsNamed)
{
    const auto meant = [](const char *name) {
        const FactorKind *kind = meantFactorKind(name);
        return kind == nullptr ? std::string() : std::string(kind->name);
    };
    EXPECT_EQ(meant("materialchamber mode"), "chamber mode");
    EXPECT_EQ(meant("noozle temperature"), "nozzle temperature");
    EXPECT_EQ(meant("Infil"), "infill");
    EXPECT_EQ(meant("infill"), "") << "it is one";
    EXPECT_EQ(meant("supplier"), "");
    EXPECT_EQ(meant(""), "");
}

} // namespace
} // namespace inchpeg
