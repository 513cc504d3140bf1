// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/planning/cautions.h"
#include "core/planning/confounds.h"
#include "support/study_builder.h"

namespace inchpeg
{
namespace
{

using test::StudyBuilder;

class Confounds : public ::testing::Test
{
protected:
    Confounds()
    {
        firstTest(m_study).piecesPerCondition = 4;
        m_study.factors = {{"chamber mode", "", ChangedPer::Plate}};
    }

    void rail(std::vector<std::string> levels, const std::string &material = "styrenic",
              Orientation orientation = Orientation::Flat)
    {
        const Status added =
            addCondition(m_study, {{}, std::move(levels), orientation, material}, m_builder.ids());
        ASSERT_TRUE(added) << added.error().message;
    }

    std::vector<Confound> find() { return confoundsOf(m_study, layOutPlates(m_study, usualWorkshop())); }

    const Confound *about(const std::vector<Confound> &all, const std::string &words)
    {
        for (const Confound &one : all) {
            if (one.sentence.find(words) != std::string::npos)
                return &one;
        }
        return nullptr;
    }

    StudyBuilder m_builder;
    Study &m_study = m_builder.study;
};

TEST_F(Confounds, FactorsThatChangeTogetherAreSeparatedByOneRail)
{
    m_study.factors = {{"speed", "mm/s", ChangedPer::Piece}, {"walls", "", ChangedPer::Piece}};
    rail({"50", "2"});
    rail({"100", "4"});
    const std::vector<Confound> found = find();
    const Confound *together = about(found, "Speed and walls change together");
    ASSERT_NE(together, nullptr);
    EXPECT_EQ(together->weight, Confound::Weight::Aliased);
    ASSERT_TRUE(together->control);
    EXPECT_EQ(together->control->condition.levels, (std::vector<std::string>{"100", "2"}));
    ASSERT_TRUE(applyControl(m_study, *together->control, m_builder.ids()));
    EXPECT_EQ(m_study.conditions.size(), 3U);
    EXPECT_EQ(about(find(), "change together in every rail"), nullptr);
}

TEST_F(Confounds, AHeatedChamberThatForcesTheFanOffGetsItsControlRail)
{
    m_study.plan.locked = {{"auxiliary fan", "70 %"}};
    rail({"open"});
    rail({"heated"});
    const std::vector<Confound> found = find();
    const Confound *fan = about(found, "switches the auxiliary fan off");
    ASSERT_NE(fan, nullptr);
    EXPECT_EQ(fan->weight, Confound::Weight::Aliased);
    ASSERT_TRUE(fan->control);
    ASSERT_TRUE(applyControl(m_study, *fan->control, m_builder.ids()));
    ASSERT_EQ(m_study.conditions.size(), 3U);
    EXPECT_TRUE(m_study.plan.locked.empty()) << "the fan is a factor now";
    EXPECT_EQ(m_study.conditions[0].levels, (std::vector<std::string>{"open", "70"}));
    EXPECT_EQ(m_study.conditions[1].levels, (std::vector<std::string>{"heated", "0"}));
    EXPECT_EQ(m_study.conditions[2].levels, (std::vector<std::string>{"open", "0"}));
    EXPECT_EQ(about(find(), "switches the auxiliary fan off"), nullptr);
}

TEST_F(Confounds, AFanThatIsOffAnywayIsNoConfound)
{
    m_study.plan.locked = {{"auxiliary fan", "0 %"}};
    rail({"open"});
    rail({"heated"});
    EXPECT_EQ(about(find(), "auxiliary fan"), nullptr);
    m_study.plan.locked = {{"auxiliary fan", "off"}};
    EXPECT_EQ(about(find(), "auxiliary fan"), nullptr);
}

TEST_F(Confounds, OnePlateALevelIsSolvedByRounds)
{
    rail({"open"});
    rail({"closed"});
    std::vector<Confound> found = find();
    const Confound *plate = about(found, "only one plate a level");
    ASSERT_NE(plate, nullptr);
    ASSERT_TRUE(plate->control);
    ASSERT_TRUE(applyControl(m_study, *plate->control, m_builder.ids()));
    EXPECT_EQ(m_study.plan.print.rounds, 2);
    found = find();
    EXPECT_EQ(about(found, "only one plate a level"), nullptr);
    EXPECT_NE(about(found, "two plates or more"), nullptr);
}

TEST_F(Confounds, SettingsPerPieceShareAPlateAndSayNothing)
{
    m_study.factors = {{"own thing", "", ChangedPer::Piece}};
    rail({"a"});
    rail({"b"});
    EXPECT_TRUE(find().empty());
}

TEST_F(Confounds, LotsAndOrientationsThatFollowTheFactor)
{
    rail({"open"}, "styrenic, lot 1");
    rail({"closed"}, "styrenic, lot 2", Orientation::Standing);
    const std::vector<Confound> found = find();
    EXPECT_NE(about(found, "lot of its own"), nullptr);
    EXPECT_NE(about(found, "how the pieces lie on the plate"), nullptr);
}

TEST_F(Confounds, PolymersAsLevelsAreTheMaterialItself)
{
    m_study.factors = {{"polymer", "", ChangedPer::Plate}};
    rail({"styrenic"}, "styrenic, lot 1");
    rail({"polyamide"}, "polyamide, lot 2");
    EXPECT_EQ(about(find(), "lot of its own"), nullptr);
}

TEST_F(Confounds, ARailAddedLateIsOfAnotherDay)
{
    rail({"open"});
    rail({"closed"});
    ASSERT_TRUE(markPrinted(m_study, layOutPlates(m_study, usualWorkshop()), 2, "now"));
    rail({"heated"});
    EXPECT_NE(about(find(), "Heated was added after printing had begun"), nullptr);
}

TEST_F(Confounds, AnEmptyStudyHasNone)
{
    EXPECT_TRUE(find().empty());
    rail({"open"});
    EXPECT_TRUE(find().empty());
}

TEST_F(Confounds, CautionsFollowMethodAndMaterial)
{
    rail({"open"}, "filled polyamide");
    const auto has = [&](std::string_view key) {
        const std::vector<Caution> cautions = cautionsOf(m_study);
        return std::any_of(cautions.begin(), cautions.end(),
                           [key](const Caution &caution) { return caution.key == key; });
    };
    EXPECT_TRUE(has("fragments"));
    EXPECT_TRUE(has("fumes"));
    EXPECT_TRUE(has("dust"));
    EXPECT_FALSE(has("pendulum"));
    firstTest(m_study).method = Method::Impact;
    EXPECT_TRUE(has("pendulum"));
    m_study.tests.push_back({Method::Creep, 3, {}});
    EXPECT_TRUE(has("weights"));
    EXPECT_FALSE(allConfirmed(m_study));
    for (const Caution &caution : cautionsOf(m_study))
        m_study.plan.confirmed.push_back({std::string(caution.key), "someone", "now"});
    EXPECT_TRUE(allConfirmed(m_study));
    EXPECT_FALSE(neededFor(m_study).empty());
}

TEST(UnsaidThings, ACheckTellsWhatNobodySaid)
{
    test::StudyBuilder builder;
    builder.study.factors.front() = {"chamber mode", "", ChangedPer::Plate};
    builder.rail("open", {}, Orientation::Flat, 2).rail("heated", {}, Orientation::Flat, 2);
    Study &study = builder.study;
    firstTest(study).method = Method::LayerAdhesion;
    const auto told = [&](std::string_view part) {
        const std::vector<Confound> found = confoundsOf(study, layOutPlates(study, usualWorkshop()));
        return std::any_of(found.begin(), found.end(),
                           [&](const Confound &one) { return one.sentence.find(part) != std::string::npos; });
    };
    EXPECT_TRUE(told("nobody says what the auxiliary fan does"));
    EXPECT_TRUE(told("All rails are printed flat"));
    EXPECT_FALSE(told("material and lot")) << "the builder names one";
    for (Condition &condition : study.conditions) {
        condition.material.clear();
        condition.orientation = Orientation::Standing;
    }
    study.plan.locked = {{"auxiliary fan", "0 %"}};
    EXPECT_TRUE(told("No rail says its material and lot"));
    EXPECT_FALSE(told("nobody says"));
    EXPECT_FALSE(told("printed flat"));
}

} // namespace
} // namespace inchpeg
