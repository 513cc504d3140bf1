// SPDX-License-Identifier: GPL-3.0-or-later
#include "schema_watch.h"

#include "support/temporary_folder.h"

#include <fmt/format.h>
#include <gtest/gtest.h>

#include <algorithm>
#include <memory>
#include <sys/wait.h>

namespace inchpeg::test
{

namespace
{

struct Watched {
    TemporaryFolder folder;
    std::vector<std::string> arguments; ///< SCHEMA FILE, one after the other
};

std::unique_ptr<Watched> &watched()
{
    static std::unique_ptr<Watched> all;
    return all;
}

/// The value of an option, or nothing.
std::string valueAfter(const std::vector<std::string> &arguments, const std::string &option)
{
    const auto found = std::find(arguments.begin(), arguments.end(), option);
    return found == arguments.end() || found + 1 == arguments.end() ? std::string() : *(found + 1);
}

class SchemaEnvironment : public testing::Environment
{
public:
    void TearDown() override
    {
        EXPECT_EQ(schemaFindings(), "");
        watched().reset();
    }
};

[[maybe_unused]] testing::Environment *const kEnvironment =
    testing::AddGlobalTestEnvironment(new SchemaEnvironment); // owned by googletest

} // namespace

void watchSchema(const std::string &schema, const std::string &text)
{
    if (!watched())
        watched() = std::make_unique<Watched>();
    std::vector<std::string> &all = watched()->arguments;
    all.push_back(schema);
    all.push_back(watched()->folder.write(fmt::format("{}.json", all.size()), text));
}

void watchCall(const std::vector<std::string> &arguments, const std::string &output)
{
    if (arguments.size() < 2 || valueAfter(arguments, "--format") == "text")
        return;
    const auto is = [&](const char *group, const char *name) {
        return arguments[0] == group && arguments[1] == name;
    };
    const auto read = [&](const char *schema, const char *option) {
        if (const std::string path = valueAfter(arguments, option); !path.empty() && path != "-")
            watchSchema(schema, bytesOf(path));
    };
    const bool isHelp = std::find(arguments.begin(), arguments.end(), "--help") != arguments.end();
    if (isHelp || output.empty())
        return;
    if (is("project", "verdict"))
        watchSchema("verdict", output);
    else if (is("project", "study"))
        watchSchema("study", output);
    else if (is("project", "workshop"))
        watchSchema("workshop", output);
    else if (is("project", "needs"))
        watchSchema("needs", output);
    else if (is("project", "export"))
        watchSchema("export", bytesOf(valueAfter(arguments, "--to") + "/project.json"));
    else if (is("plan", "make") || is("plan", "show"))
        watchSchema("plan_result", output);
    else if (arguments[0] == "decide")
        watchSchema("decide", output);
    if (is("plan", "make"))
        read("plan", "--spec");
    if (arguments[0] == "decide")
        read("needs", "--needs");
}

std::string schemaFindings()
{
    if (!watched())
        return {};
    const TemporaryFolder folder;
    std::string command = std::string("/usr/bin/python3 '") + INCHPEG_SOURCE +
                          "/tests/support/check_schema.py' '" + INCHPEG_SOURCE + "/docs/schemas'";
    for (const std::string &argument : watched()->arguments)
        command += " '" + argument + "'";
    const int raw = std::system((command + " >" + folder.path("said") + " 2>&1").c_str());
    const std::string said = bytesOf(folder.path("said"));
    return WIFEXITED(raw) && WEXITSTATUS(raw) == 0 ? std::string()
                                                   : "schemas (python3-jsonschema is wanted): " + said;
}

} // namespace inchpeg::test
