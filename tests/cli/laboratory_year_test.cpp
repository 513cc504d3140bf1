// SPDX-License-Identifier: GPL-3.0-or-later
// A laboratory's year by the command line alone, in a small form (whole: bench/laboratory_year); and that the
// schemas notice what does not keep to them.
#include "run_cli.h"

namespace inchpeg
{

TEST(LaboratoryYear, VerdictsAreWhatWasBuiltIn)
{
    const test::TemporaryFolder folder;
    const std::string command = std::string("/usr/bin/python3 '") + INCHPEG_SOURCE +
                                "/bench/laboratory_year' '" + INCHPEG_CLI + "' 26 3 > '" +
                                folder.path("said") + "' 2>&1";
    const int raw = std::system(command.c_str());
    EXPECT_TRUE(WIFEXITED(raw) && WEXITSTATUS(raw) == 0) << test::bytesOf(folder.path("said"));
    EXPECT_TRUE(test::holds(test::bytesOf(folder.path("said")), "26 studies, 234 pieces"))
        << test::bytesOf(folder.path("said"));
}

TEST(Schemas, AreReadAndNoticeWhatDoesNotKeepToThem)
{
    const test::TemporaryFolder folder;
    const auto status = [&](const std::string &text) {
        const std::string command = std::string("/usr/bin/python3 '") + INCHPEG_SOURCE +
                                    "/tests/support/check_schema.py' '" + INCHPEG_SOURCE +
                                    "/docs/schemas' needs '" + folder.write("needs.json", text) + "' > '" +
                                    folder.path("said") + "'";
        return std::system(command.c_str());
    };
    EXPECT_EQ(status(R"({"part": "holder", "needs": [{"kind": "stress", "limit": "12 MPa"}]})"), 0);
    EXPECT_NE(status(R"({"part": "holder", "needs": [{"kind": "strength", "limit": "12 MPa"}]})"), 0);
    EXPECT_TRUE(test::holds(test::bytesOf(folder.path("said")), "needs/0/kind"));
    EXPECT_NE(status(R"({"parts": "holder"})"), 0);
}

} // namespace inchpeg
