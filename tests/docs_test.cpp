// SPDX-License-Identifier: GPL-3.0-or-later
// What the documents point at is there.
#include "core/compare/sentence.h"
#include "core/method/tension/tension_reading.h"
#include "core/planning/cautions.h"

#include <gtest/gtest.h>

#include <filesystem>
#include <fstream>
#include <regex>
#include <set>
#include <sstream>
#include <string>

namespace inchpeg
{

namespace
{

const std::filesystem::path kRoot = INCHPEG_SOURCE_DIR;

std::string textOf(const std::filesystem::path &path)
{
    std::ifstream file(path);
    std::stringstream text;
    text << file.rdbuf();
    return text.str();
}

std::vector<std::filesystem::path> documents()
{
    std::vector<std::filesystem::path> found{kRoot / "README.md", kRoot / "CONTRIBUTING.md"};
    for (const auto &entry : std::filesystem::recursive_directory_iterator(kRoot / "docs")) {
        if (entry.path().extension() == ".md")
            found.push_back(entry.path());
    }
    return found;
}

/// The targets of the links and pictures of a document, without those of the web and within the page.
std::vector<std::string> targetsIn(const std::string &text)
{
    static const std::regex link(R"(\]\(([^)\s]+)\))");
    std::vector<std::string> targets;
    for (std::sregex_iterator match(text.begin(), text.end(), link), end; match != end; ++match) {
        const std::string target = (*match)[1];
        if (!target.starts_with("http") && !target.starts_with("#"))
            targets.push_back(target.substr(0, target.find('#')));
    }
    return targets;
}

} // namespace

TEST(Documents, EveryLinkLeadsSomewhere)
{
    std::size_t links = 0;
    for (const std::filesystem::path &document : documents()) {
        ASSERT_TRUE(std::filesystem::exists(document)) << document;
        for (std::string target : targetsIn(textOf(document))) {
            ++links;
            std::filesystem::path path = document.parent_path() / target;
            if (!std::filesystem::exists(path) && path.extension().empty())
                path += ".md"; // pages of the guide are named without their ending
            EXPECT_TRUE(std::filesystem::exists(path)) << document << " points at " << target;
        }
    }
    EXPECT_GT(links, 40U);
}

TEST(Documents, TheTableOfSentencesIsTheListThatIsSaid)
{
    std::string table = "| kind | said when | not when | rests on | level |\n|---|---|---|---|---|\n";
    for (const SentenceFacts &facts : allSentenceKinds())
        table += "| `" + std::string(facts.name) + "` | " + std::string(facts.saidWhen) + " | " +
                 std::string(facts.notWhen) + " | " + std::string(facts.restsOn) + " | " +
                 std::string(facts.level) + " |\n";
    EXPECT_NE(textOf(kRoot / "docs/methods.md").find(table), std::string::npos) << table;
}

TEST(Documents, TheReadmeShowsEveryPictureThatIsKept)
{
    const std::string readme = textOf(kRoot / "README.md");
    std::size_t pictures = 0;
    for (const auto &entry : std::filesystem::directory_iterator(kRoot / "docs/screenshots")) {
        ++pictures;
        EXPECT_NE(readme.find(entry.path().filename().string()), std::string::npos) << entry.path();
    }
    EXPECT_LT(pictures, 20U);
    EXPECT_GT(pictures, 8U);
}

TEST(Documents, TheTableOfWhatToTouchNamesFilesThatAreThere)
{
    const std::string text = textOf(kRoot / "docs/architecture.md");
    static const std::regex name(R"(`((?:core|app|store|service|cli|sim|rig)/[a-z_/]+\.cpp)`)");
    std::size_t names = 0;
    for (std::sregex_iterator match(text.begin(), text.end(), name), end; match != end; ++match, ++names)
        EXPECT_TRUE(std::filesystem::exists(kRoot / "src" / (*match)[1].str())) << (*match)[1];
    EXPECT_GT(names, 8U);
}

// A study's own words stand for who we are; no machine of ours has a place in them.
TEST(Documents, NoPathOfAMachineStandsInThem)
{
    static const std::regex home(R"((/home/|/root/|/Users/|localhost:\d))");
    for (const std::filesystem::path &document : documents())
        EXPECT_FALSE(std::regex_search(textOf(document), home)) << document;
}

// Whoever adds a test adds its place in the guide.
TEST(Documents, EveryTestThatIsReadIsTold)
{
    const std::string commands = textOf(kRoot / "docs/user-guide/command-line.md");
    const std::string reading = textOf(kRoot / "docs/user-guide/reading-curves.md");
    for (const MethodFacts &facts : allMethods()) {
        if (facts.reduction == nullptr)
            continue;
        EXPECT_NE(commands.find(std::string("reduce ") + std::string(facts.reduction->command)),
                  std::string::npos)
            << facts.reduction->command << " is not among the commands of the guide";
        EXPECT_TRUE(facts.reduction == &kTensileReduction ||
                    reading.find(std::string(facts.name)) != std::string::npos)
            << facts.name << " is not in the guide's page on reading";
        Study study;
        firstTest(study).method = facts.method;
        EXPECT_FALSE(cautionsOf(study).empty() && facts.load != LoadKind::None)
            << facts.name << " has no caution";
    }
}

} // namespace inchpeg
