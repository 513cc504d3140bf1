// SPDX-License-Identifier: GPL-3.0-or-later
#include "service/project/edit_history.h"

#include <gtest/gtest.h>

namespace inchpeg
{

namespace
{

EditHistory::Step step(const char *what, const char *before, const char *after)
{
    EditHistory::Step made;
    made.what = what;
    Study from;
    from.question = before;
    Study to = from;
    to.question = after;
    made.study = StudyDifference(from, to);
    return made;
}

std::string questionBefore(const EditHistory::Step &step)
{
    return step.study->backward(Study{}).question;
}

std::string questionAfter(const EditHistory::Step &step)
{
    return step.study->forward(Study{}).question;
}

} // namespace

TEST(EditHistory, IsEmptyAtFirst)
{
    const EditHistory history;
    EXPECT_TRUE(history.undoText().empty());
    EXPECT_TRUE(history.redoText().empty());
    EXPECT_EQ(history.undoStep(), nullptr);
    EXPECT_EQ(history.redoStep(), nullptr);
}

TEST(EditHistory, GoesBackAndForthThroughTheSteps)
{
    EditHistory history;
    history.add(step("first", "a", "b"));
    history.add(step("second", "b", "c"));
    EXPECT_EQ(history.undoText(), "second");
    EXPECT_EQ(questionBefore(*history.undoStep()), "b");
    history.stepBack();
    EXPECT_EQ(history.undoText(), "first");
    EXPECT_EQ(history.redoText(), "second");
    EXPECT_EQ(questionAfter(*history.redoStep()), "c");
    history.stepBack();
    EXPECT_TRUE(history.undoText().empty());
    EXPECT_EQ(history.redoText(), "first");
    history.stepForward();
    history.stepForward();
    EXPECT_TRUE(history.redoText().empty());
    EXPECT_EQ(history.undoText(), "second");
}

TEST(EditHistory, AnEditAfterSteppingBackEndsTheOtherBranch)
{
    EditHistory history;
    history.add(step("first", "a", "b"));
    history.add(step("second", "b", "c"));
    history.stepBack();
    history.add(step("another", "b", "d"));
    EXPECT_TRUE(history.redoText().empty());
    EXPECT_EQ(questionAfter(*history.undoStep()), "d");
    history.stepBack();
    EXPECT_EQ(history.undoText(), "first");
    history.clear();
    EXPECT_TRUE(history.undoText().empty());
    EXPECT_TRUE(history.redoText().empty());
}

} // namespace inchpeg
