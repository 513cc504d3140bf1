// SPDX-License-Identifier: GPL-3.0-or-later
// Dependencies point at the core; one include root for all layers would let a mistake through unnoticed.
#include <gtest/gtest.h>

#include <algorithm>
#include <filesystem>
#include <fstream>
#include <string>
#include <vector>

namespace inchpeg
{

namespace
{

struct Layer {
    const char *folder;
    std::vector<std::string> forbidden; ///< what an #include line must not hold
};

std::vector<std::string> includesIn(const std::filesystem::path &folder,
                                    const std::vector<std::string> &forbidden)
{
    std::vector<std::string> found;
    for (const auto &entry : std::filesystem::recursive_directory_iterator(folder)) {
        if (entry.path().extension() != ".cpp" && entry.path().extension() != ".h")
            continue;
        std::ifstream file(entry.path());
        for (std::string line; std::getline(file, line);) {
            const bool breaks = std::any_of(forbidden.begin(), forbidden.end(), [&](const std::string &part) {
                return line.find(part) != std::string::npos;
            });
            if (line.starts_with("#include") && breaks)
                found.push_back(entry.path().string() + ": " + line);
        }
    }
    return found;
}

} // namespace

TEST(Layering, EachLayerIncludesOnlyWhatLiesBelow)
{
    const Layer layers[] = {
        {"core",
         {"<Q", "<qcustomplot", "<unistd", "<fcntl", "<thread", "<filesystem", "<fstream", "<iostream",
          "\"disk/", "\"rig/", "\"sim/", "\"store/", "\"service/", "\"report/", "\"tone/", "\"app/",
          "\"cli/"}},
        {"disk", {"<Q", "\"rig/", "\"sim/", "\"store/", "\"service/", "\"report/", "\"app/", "\"cli/"}},
        {"sim", {"<Q", "\"store/", "\"service/", "\"report/", "\"app/", "\"cli/"}},
        {"rig", {"<QW", "\"store/", "\"service/", "\"report/", "\"app/", "\"cli/"}},
        {"tone", {"\"core/", "\"store/", "\"service/", "\"report/", "\"app/", "\"cli/"}},
        {"store", {"<QW", "<QApplication", "\"sim/", "\"service/", "\"report/", "\"app/", "\"cli/"}},
        {"service", {"<QW", "<QApplication", "\"report/", "\"app/", "\"cli/"}},
        {"report", {"<QW", "<QApplication", "<QSql", "\"sim/", "\"store/", "\"service/", "\"app/", "\"cli/"}},
        {"cli", {"<QW", "<QApplication", "\"app/"}},
        {"app", {"\"cli/", "<QSql"}},
    };
    for (const Layer &layer : layers) {
        const std::filesystem::path folder = std::filesystem::path(INCHPEG_SOURCE_DIR) / "src" / layer.folder;
        ASSERT_TRUE(std::filesystem::exists(folder)) << folder;
        for (const std::string &line : includesIn(folder, layer.forbidden))
            ADD_FAILURE() << line;
    }
}

namespace
{

/// Folders of a layer, the lowest first; those of one step know nothing of each other.
using Steps = std::vector<std::vector<std::string>>;

std::size_t stepOf(const Steps &steps, const std::string &folder)
{
    for (std::size_t i = 0; i < steps.size(); ++i) {
        if (std::find(steps[i].begin(), steps[i].end(), folder) != steps[i].end())
            return i;
    }
    return steps.size();
}

/// Tells every include of a folder that does not stand below.
void expectStepsHold(const std::string &layer, const Steps &steps)
{
    const std::filesystem::path root = std::filesystem::path(INCHPEG_SOURCE_DIR) / "src" / layer;
    const std::string opening = "#include \"" + layer + "/";
    for (const auto &entry : std::filesystem::directory_iterator(root)) {
        if (!entry.is_directory())
            continue;
        const std::string folder = entry.path().filename().string();
        const std::size_t own = stepOf(steps, folder);
        EXPECT_LT(own, steps.size()) << layer << "/" << folder << " has no place in the order";
        for (const std::string &line : includesIn(entry.path(), {opening})) {
            std::string other = line.substr(line.find(opening) + opening.size());
            other = other.substr(0, other.find('/'));
            EXPECT_TRUE(other == folder || stepOf(steps, other) < own) << line;
        }
    }
}

} // namespace

TEST(Layering, EachFolderOfCoreIncludesOnlyThoseBelow)
{
    expectStepsHold("core", {{"base"},
                             {"units"},
                             {"import"},
                             {"rig"},
                             {"stats"},
                             {"text"},
                             {"specimen"},
                             {"curve"},
                             {"method"},
                             {"model"},
                             {"reading"},
                             {"compare"},
                             {"planning"},
                             {"facts"},
                             {"logbook"},
                             {"intake"},
                             {"decide"},
                             {"report"}});
}

TEST(Layering, NoLensOfTheWindowIncludesAnother)
{
    expectStepsHold("app", {{"icons"},
                            {"theme"},
                            {"session"},
                            {"export"},
                            {"rack"},
                            {"parts"},
                            {"settings", "help", "gauge", "find", "paper", "shelf", "tell"},
                            {"workshop", "practice"},
                            {"plan", "log", "bench", "import", "begin", "read", "compare", "decide"},
                            {"window"}});
}

} // namespace inchpeg
