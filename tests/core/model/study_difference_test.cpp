// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/base/random.h"
#include "core/logbook/measuring.h"
#include "core/model/study_difference.h"
#include "core/planning/plates.h"
#include "support/log_places.h"
#include "support/study_builder.h"

namespace inchpeg
{

namespace
{

/// One edit of any kind, drawn by lot.
void editAtRandom(test::StudyBuilder &builder, Random &random)
{
    Study &study = builder.study;
    switch (random.below(8)) {
    case 0:
        study.question += "?";
        break;
    case 1:
        EXPECT_TRUE(setPiecesPerCondition(study, methodOf(study), 1 + static_cast<int>(random.below(6)),
                                          builder.ids()));
        break;
    case 2:
        EXPECT_TRUE(addCondition(study, {{}, {std::to_string(300 + builder.lastId)}, Orientation::Flat, "x"},
                                 builder.ids()));
        break;
    case 3:
        if (study.conditions.size() > 2) {
            const ConditionId gone = study.conditions.back().id;
            study.conditions.pop_back();
            std::erase_if(study.pieces, [gone](const Piece &piece) { return piece.condition == gone; });
        }
        break;
    case 4:
        study.plan.locked.push_back({"walls", std::to_string(random.below(9))});
        break;
    case 5: {
        const PlateLayout layout = layOutPlates(study, usualWorkshop());
        if (!layout.plates.empty()) {
            EXPECT_TRUE(markPrinted(study, layout, layout.plates.back().number, "2026-06-01T10:00:00Z"));
        }
        break;
    }
    case 6:
        plateRecord(study.log, 1).chamber_C = 20.0 + random.uniform();
        break;
    default:
        if (!study.pieces.empty()) {
            Piece &piece = study.pieces[random.below(study.pieces.size())];
            EXPECT_TRUE(setLoggedValue(study, piece, test::kMass, 1.0 + random.uniform()));
        }
    }
}

} // namespace

TEST(StudyDifference, AnyChainOfEditsIsTakenBackAndMadeAgain)
{
    Random random(11);
    test::StudyBuilder builder;
    builder.rail("230", {}, Orientation::Flat, 3).rail("250", {}, Orientation::Flat, 3);
    std::vector<Study> states{builder.study};
    std::vector<StudyDifference> steps;
    for (int i = 0; i < 300; ++i) {
        editAtRandom(builder, random);
        steps.emplace_back(states.back(), builder.study);
        states.push_back(builder.study);
    }
    Study study = states.back();
    for (std::size_t i = steps.size(); i-- > 0;) {
        study = steps[i].backward(std::move(study));
        ASSERT_EQ(study, states[i]) << "back to " << i;
    }
    for (std::size_t i = 0; i < steps.size(); ++i) {
        study = steps[i].forward(std::move(study));
        ASSERT_EQ(study, states[i + 1]) << "on to " << i + 1;
    }
}

TEST(StudyDifference, OfTwoStudiesIsRefused)
{
    Study a;
    a.id = StudyId{1};
    Study b;
    b.id = StudyId{2};
    EXPECT_THROW(StudyDifference(a, b), ContractViolation);
}

} // namespace inchpeg
