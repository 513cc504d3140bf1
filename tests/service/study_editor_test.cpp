// SPDX-License-Identifier: GPL-3.0-or-later
// One open project, edited by whoever asks: each change is one step of the project's history.
#include "service/demo_project.h"
#include "service/project/open_project.h"
#include "support/temporary_folder.h"
#include "support/wrong_content.h"

#include <gtest/gtest.h>

#include <filesystem>

namespace inchpeg
{

namespace
{

const Person kAda{"Ada", [] { return std::string("2026-06-01T10:00:00Z"); }};

class StudyEditorTest : public testing::Test
{
protected:
    void SetUp() override
    {
        ASSERT_TRUE(writeDemoProject(m_path, "2026-06-01"));
        m_open = *OpenProject::open(m_path, kAda);
        m_studies = *m_open->file().studies();
    }
    StudyEditor &editor() { return m_open->editor(); }
    std::string questionOf(std::size_t place)
    {
        return m_open->file().loadStudy(m_studies[place].id)->question;
    }
    Result<Edited> ask(std::size_t place, const std::string &question)
    {
        return editor().edit(m_studies[place].id, "question", [&](Study &study) {
            study.question = question;
            return ok();
        });
    }

    test::TemporaryFolder m_folder;
    std::string m_path = m_folder.path("demo.inchpeg");
    std::unique_ptr<OpenProject> m_open;
    std::vector<StudyHeader> m_studies;
};

} // namespace

TEST_F(StudyEditorTest, UndoGoesFromStudyToStudyThroughWorkshopAndTexts)
{
    const std::string first = questionOf(0);
    const std::string second = questionOf(1);
    ASSERT_TRUE(editor().hold(m_studies[0].id));
    ASSERT_EQ(ask(0, "one?")->study, m_studies[0].id);
    ASSERT_EQ(ask(1, "two?")->study, m_studies[1].id) << "one that is not at hand";
    ASSERT_TRUE(editor()
                    .editWorkshop("money",
                                  [](Workshop &workshop) {
                                      workshop.moneyUnit = "CHF";
                                      return ok();
                                  })
                    ->isWorkshop);
    ASSERT_EQ(editor().keepText("needs", "needs", "{}")->text, "needs");
    EXPECT_EQ(editor().held()->question, "one?");
    EXPECT_EQ(questionOf(1), "two?");

    EXPECT_EQ(editor().undo()->text, "needs");
    EXPECT_NE(editor().keptText("needs"), "{}");
    EXPECT_TRUE(editor().undo()->isWorkshop);
    EXPECT_NE(editor().workshop().moneyUnit, "CHF");
    EXPECT_EQ(editor().undo()->study, m_studies[1].id);
    EXPECT_EQ(questionOf(1), second);
    EXPECT_EQ(editor().undo()->study, m_studies[0].id);
    EXPECT_EQ(editor().held()->question, first);
    EXPECT_EQ(questionOf(0), first);
    EXPECT_TRUE(editor().undoText().empty());
    for (int i = 0; i < 4; ++i)
        ASSERT_TRUE(editor().redo());
    EXPECT_EQ(questionOf(0), "one?");
    EXPECT_EQ(questionOf(1), "two?");
    EXPECT_EQ(editor().workshop().moneyUnit, "CHF");
    EXPECT_EQ(editor().keptText("needs"), "{}");
}

TEST_F(StudyEditorTest, AChangeThatChangesNothingOrIsRefusedIsNoStep)
{
    EXPECT_TRUE(ask(0, questionOf(0))->isNothing());
    const Result<Edited> refused = editor().edit(m_studies[0].id, "question", [](Study &study) {
        study.question = "half done";
        return Status(invalidArgument("not this"));
    });
    ASSERT_FALSE(refused);
    EXPECT_EQ(refused.error().message, "not this");
    EXPECT_NE(questionOf(0), "half done");
    EXPECT_TRUE(editor().undoText().empty());
    EXPECT_EQ(editor().edit(StudyId{99999}, "none", [](Study &) { return ok(); }).error().code,
              ErrorCode::NotFound);
}

TEST_F(StudyEditorTest, KeepsWhoChangedALoggedValueAndWhen)
{
    const Study study = *m_open->file().loadStudy(m_studies[0].id);
    const PieceId piece = study.pieces.front().id;
    ASSERT_TRUE(editor().edit(study.id, "mass", [](Study &changed) {
        changed.pieces.front().log.mass_g = 12.5;
        return ok();
    }));
    const std::vector<LoggedChange> history = *m_open->file().history(study.id, piece);
    ASSERT_FALSE(history.empty());
    EXPECT_EQ(history.back().who, "Ada");
    EXPECT_EQ(history.back().when, "2026-06-01T10:00:00Z");
}

TEST_F(StudyEditorTest, WhileItIsRefusedNothingChanges)
{
    const std::string before = questionOf(0);
    ASSERT_TRUE(ask(1, "a step"));
    editor().refuse(Error{ErrorCode::Storage, "the project is being compacted", {}});
    EXPECT_EQ(ask(0, "another?").error().message, "the project is being compacted");
    EXPECT_FALSE(editor().editWorkshop("money", [](Workshop &) { return ok(); }));
    EXPECT_FALSE(editor().keepText("text", "needs", "x"));
    EXPECT_FALSE(editor().undo()) << "a step back is a change too";
    EXPECT_EQ(questionOf(1), "a step");
    editor().refuse(std::nullopt);
    EXPECT_EQ(questionOf(0), before);
    EXPECT_TRUE(editor().undo());
}

TEST_F(StudyEditorTest, OneProgramHoldsItOthersReadIt)
{
    const auto second = OpenProject::open(m_path, kAda);
    ASSERT_FALSE(second);
    EXPECT_EQ(second.error().code, ErrorCode::Busy);
    const auto reader = OpenProject::openForReading(m_path, kAda);
    ASSERT_TRUE(reader) << reader.error().message;
    EXPECT_TRUE((*reader)->isForReading());
    EXPECT_FALSE((*reader)->editor().edit(m_studies[0].id, "no", [](Study &study) {
        study.question = "changed by a reader";
        return ok();
    }));
    const std::string link = m_folder.path("link.inchpeg");
    std::filesystem::create_symlink(m_path, link);
    EXPECT_TRUE((*reader)->isAt(link)) << "by whatever name";
    EXPECT_FALSE((*reader)->isAt(m_folder.path("other.inchpeg")));
    m_open.reset();
    EXPECT_TRUE(OpenProject::open(m_path, kAda)) << "the lock went with it";
}

TEST_F(StudyEditorTest, AWorkshopThatCannotBeReadHasAStandInAndIsTold)
{
    ASSERT_TRUE(m_open->file().setSetting("workshop", "{\"rigs\": 7"));
    m_open.reset();
    const auto again = OpenProject::open(m_path, kAda);
    ASSERT_TRUE(again);
    ASSERT_TRUE((*again)->trouble());
    EXPECT_FALSE((*again)->trouble()->message.empty());
    EXPECT_FALSE((*again)->editor().workshop().rigs.empty()) << "the usual one stands in";
}

} // namespace inchpeg
