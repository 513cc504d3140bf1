// SPDX-License-Identifier: GPL-3.0-or-later
#include "service/demo_project.h"
#include "service/open_data.h"
#include "service/project_report.h"
#include "store/raw_files.h"
#include "support/temporary_folder.h"

#include <gtest/gtest.h>
#include <nlohmann/json.hpp>

#include <algorithm>
#include <filesystem>
#include <set>

namespace inchpeg
{

namespace
{

namespace fs = std::filesystem;
using nlohmann::json;
using test::bytesOf;

class OpenData : public testing::Test
{
protected:
    test::TemporaryFolder m_folder;
    std::optional<ProjectFile> m_project;

    void SetUp() override
    {
        ASSERT_TRUE(writeDemoProject(m_folder.path("demo.inchpeg")));
        Result<ProjectFile> project = ProjectFile::open(m_folder.path("demo.inchpeg"));
        ASSERT_TRUE(project);
        m_project.emplace(std::move(*project));
    }
    StudyId study(std::size_t place) { return (*m_project->studies())[place].id; }
    Result<OpenDataWritten> write(std::size_t place, const std::string &to)
    {
        return writeOpenData(*m_project, study(place), to, reportOrigin(*m_project, "0.0", "2026-06-01"));
    }
    static std::vector<std::vector<std::string>> rowsOf(const std::string &csv)
    {
        std::vector<std::vector<std::string>> rows{{""}};
        bool isQuoted = false;
        for (const char c : csv) {
            if (c == '"')
                isQuoted = !isQuoted;
            else if (c == ',' && !isQuoted)
                rows.back().emplace_back();
            else if (c == '\n' && !isQuoted)
                rows.push_back({""});
            else
                rows.back().back() += c;
        }
        rows.pop_back();
        return rows;
    }
};

} // namespace

TEST_F(OpenData, EveryFileIsDescribedWithItsColumnsAndChecksum)
{
    for (std::size_t place = 0; place < m_project->studies()->size(); ++place) {
        const std::string to = m_folder.path("package" + std::to_string(place));
        const Result<OpenDataWritten> written = write(place, to);
        ASSERT_TRUE(written) << written.error().message;
        const json package = json::parse(bytesOf(to + "/datapackage.json"));
        std::set<std::string> described;
        std::set<std::string> names;
        const json resources = package["resources"];
        for (const json &resource : resources) {
            const std::string path = resource["path"];
            described.insert(path);
            const std::string name = resource["name"];
            EXPECT_TRUE(names.insert(name).second) << name;
            EXPECT_EQ(name.find_first_not_of("abcdefghijklmnopqrstuvwxyz0123456789._-"), std::string::npos)
                << name;
            const std::string bytes = bytesOf(to + '/' + path);
            EXPECT_EQ(resource["hash"], "sha256:" + sha256Of(bytes)) << path;
            EXPECT_EQ(resource["bytes"], bytes.size());
            if (!resource.contains("schema"))
                continue;
            const std::vector<std::vector<std::string>> rows = rowsOf(bytes);
            const json fields = resource["schema"]["fields"];
            ASSERT_EQ(rows.front().size(), fields.size()) << path;
            for (std::size_t i = 0; i < fields.size(); ++i)
                EXPECT_EQ(fields[i]["name"], rows.front()[i]);
            for (const std::vector<std::string> &row : rows)
                ASSERT_EQ(row.size(), fields.size()) << path;
        }
        std::size_t files = 0;
        for (const fs::directory_entry &entry : fs::recursive_directory_iterator(to)) {
            if (!entry.is_regular_file())
                continue;
            ++files;
            const std::string path = fs::relative(entry.path(), to).generic_string();
            EXPECT_TRUE(path == "datapackage.json" || described.contains(path)) << path;
        }
        EXPECT_EQ(files, written->files);
    }
}

TEST_F(OpenData, ValuesSayWhichOfThemCountAndRawRecordsAreUntouched)
{
    const std::string to = m_folder.path("package");
    const Result<OpenDataWritten> written = write(0, to);
    ASSERT_TRUE(written);
    const std::vector<std::vector<std::string>> values = rowsOf(bytesOf(to + "/values.csv"));
    EXPECT_EQ(values.size(), written->values + 1);
    int leftOut = 0;
    for (const std::vector<std::string> &row : values) {
        if (row[3] == "tensile_strength" && row[8] == "0") {
            ++leftOut;
            EXPECT_EQ(row[0], "B4") << "the one that slipped";
        }
    }
    EXPECT_EQ(leftOut, 1);
    const Result<Study> study = m_project->loadStudy(this->study(0));
    ASSERT_TRUE(study);
    const std::vector<std::vector<std::string>> pieces = rowsOf(bytesOf(to + "/pieces.csv"));
    const auto area = std::find(pieces[0].begin(), pieces[0].end(), "area_mm2") - pieces[0].begin();
    ASSERT_LT(area, static_cast<std::ptrdiff_t>(pieces[0].size()))
        << "a section that is only an area has no other column";
    EXPECT_NEAR(std::stod(pieces[1][static_cast<std::size_t>(area)]),
                in_mm2(*areaOf(*study->pieces[0].section)), 1e-9);
    for (const Piece &piece : study->pieces) {
        const Result<RawFileInfo> info = m_project->rawFileInfo(piece.recording->file);
        ASSERT_TRUE(info);
        EXPECT_EQ(sha256Of(bytesOf(to + "/raw/" + info->name)), info->sha256);
    }
}

TEST_F(OpenData, NothingIsWrittenOverAndNothingIsLeftHalfWritten)
{
    const std::string to = m_folder.path("package");
    ASSERT_TRUE(write(2, to));
    const Result<OpenDataWritten> again = write(2, to);
    ASSERT_FALSE(again);
    EXPECT_NE(again.error().message.find("not an empty folder"), std::string::npos);
    EXPECT_FALSE(write(2, m_folder.path("no/such/place.zip")));
    std::stop_source stopped;
    stopped.request_stop();
    const Result<OpenDataWritten> broken =
        writeOpenData(*m_project, study(2), m_folder.path("stopped"),
                      reportOrigin(*m_project, "0.0", "2026-06-01"), stopped.get_token());
    ASSERT_FALSE(broken);
    EXPECT_EQ(broken.error().code, ErrorCode::Cancelled);
    EXPECT_FALSE(fs::exists(m_folder.path("stopped")));
    EXPECT_FALSE(fs::exists(m_folder.path("stopped.part")));
}

TEST_F(OpenData, AZipHoldsTheSame)
{
    const Result<OpenDataWritten> written = write(0, m_folder.path("package.ZIP"));
    ASSERT_TRUE(written);
    const std::string bytes = bytesOf(m_folder.path("package.ZIP"));
    EXPECT_EQ(bytes.substr(0, 4), "PK\x03\x04");
    // The directory at its end names each file once.
    std::size_t entries = 0;
    for (std::size_t at = bytes.find("PK\x01\x02"); at != std::string::npos;
         at = bytes.find("PK\x01\x02", at + 1))
        ++entries;
    EXPECT_EQ(entries, written->files);
}

TEST_F(OpenData, StudiesAreNamedByWhatPeopleRemember)
{
    EXPECT_EQ(*studyNamed(*m_project, "do hotter LAYERS of the frame-rest lug hold better?"), study(0));
    EXPECT_EQ(*studyNamed(*m_project, "Which polymer for the frame rest holds"), study(1));
    EXPECT_EQ(*studyNamed(*m_project, "1"), study(0));
    const Result<StudyId> several = studyNamed(*m_project, "which polymer");
    ASSERT_FALSE(several);
    EXPECT_NE(several.error().message.find("2 studies begin"), std::string::npos);
    const Result<StudyId> none = studyNamed(*m_project, "warp of the moon");
    ASSERT_FALSE(none);
    EXPECT_NE(none.error().message.find("Do hotter layers"), std::string::npos) << "names those there are";
}

} // namespace inchpeg
