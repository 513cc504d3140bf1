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
        {"core", {"<Q", "<qcustomplot", "\"sim/", "\"store/", "\"service/", "\"app/", "\"cli/"}},
        {"sim", {"<Q", "\"store/", "\"service/", "\"app/", "\"cli/"}},
        {"store", {"<QW", "<QApplication", "\"sim/", "\"service/", "\"app/", "\"cli/"}},
        {"service", {"<QW", "<QApplication", "\"app/", "\"cli/"}},
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

} // namespace inchpeg
