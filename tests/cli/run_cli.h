// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "schema_watch.h"
#include "support/temporary_folder.h"

#include <gtest/gtest.h>
#include <nlohmann/json.hpp>

#include <string>
#include <sys/wait.h>
#include <vector>

namespace inchpeg::test
{

struct CliOutcome {
    int status = -1;
    std::string out;
    std::string err;

    [[nodiscard]] nlohmann::json json() const
    {
        const nlohmann::json parsed = nlohmann::json::parse(out, nullptr, false);
        EXPECT_FALSE(parsed.is_discarded()) << out << err;
        return parsed;
    }
};

/// Runs the real program; input goes to its standard input.
inline CliOutcome runCli(const std::vector<std::string> &arguments, const std::string &input = {})
{
    const TemporaryFolder folder;
    std::string command = INCHPEG_CLI;
    for (const std::string &argument : arguments) {
        command += " '";
        for (char c : argument)
            command += c == '\'' ? std::string("'\\''") : std::string(1, c);
        command += "'";
    }
    command += " <" + folder.write("in", input) + " >" + folder.path("out") + " 2>" + folder.path("err");
    const int raw = std::system(command.c_str());
    CliOutcome outcome{WIFEXITED(raw) ? WEXITSTATUS(raw) : -1, bytesOf(folder.path("out")),
                       bytesOf(folder.path("err"))};
    if (outcome.status == 0)
        watchCall(arguments, outcome.out);
    return outcome;
}

inline bool holds(const std::string &text, std::string_view part)
{
    return text.find(part) != std::string::npos;
}

/// Refused: status 2, nothing on standard output, a sentence on standard error.
inline void expectRefused(const CliOutcome &outcome, std::string_view says)
{
    EXPECT_EQ(outcome.status, 2) << outcome.out;
    EXPECT_EQ(outcome.out, "");
    EXPECT_TRUE(holds(outcome.err, says)) << outcome.err;
}

} // namespace inchpeg::test
