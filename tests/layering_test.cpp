// SPDX-License-Identifier: GPL-3.0-or-later
// Dependencies point at the core; one include root for all layers would let a mistake through unnoticed.
#include <gtest/gtest.h>

#include <filesystem>
#include <fstream>
#include <regex>
#include <string>
#include <vector>

namespace inchpeg
{

namespace
{

struct Layer {
    const char *folder;
    const char *forbidden; ///< what an #include line must not hold
};

std::vector<std::string> includesIn(const std::filesystem::path &folder, const std::regex &forbidden)
{
    std::vector<std::string> found;
    for (const auto &entry : std::filesystem::recursive_directory_iterator(folder)) {
        if (entry.path().extension() != ".cpp" && entry.path().extension() != ".h")
            continue;
        std::ifstream file(entry.path());
        for (std::string line; std::getline(file, line);) {
            if (line.starts_with("#include") && std::regex_search(line, forbidden))
                found.push_back(entry.path().string() + ": " + line);
        }
    }
    return found;
}

} // namespace

TEST(Layering, EachLayerIncludesOnlyWhatLiesBelow)
{
    const Layer layers[] = {
        {"core", R"(<Q|<qcustomplot|"(sim|store|service|app|cli)/)"},
        {"sim", R"(<Q|"(store|service|app|cli)/)"},
        {"store", R"(<QW|<QApplication|"(sim|service|app|cli)/)"},
        {"service", R"(<QW|<QApplication|"(app|cli)/)"},
        {"cli", R"(<QW|<QApplication|"app/)"},
        {"app", R"("(cli)/|<QSql)"},
    };
    for (const Layer &layer : layers) {
        const std::filesystem::path folder = std::filesystem::path(INCHPEG_SOURCE_DIR) / "src" / layer.folder;
        ASSERT_TRUE(std::filesystem::exists(folder)) << folder;
        for (const std::string &line : includesIn(folder, std::regex(layer.forbidden)))
            ADD_FAILURE() << line;
    }
}

} // namespace inchpeg
