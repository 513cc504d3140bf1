// SPDX-License-Identifier: GPL-3.0-or-later
#include "cli/tell_options.h"

namespace inchpeg::cli
{

namespace
{

constexpr OptionSpec kStudyNamed{"study", "NAME", "its question, how that begins, or its number", false,
                                 true};

} // namespace

std::vector<Command> tellCommands(const TellRuns &runs)
{
    return {
        {"project",
         "report",
         "FILE",
         "write a study's report as PDF, HTML or workbook",
         {kStudyNamed,
          {"to", "OUT", "ends in .pdf, .html or .xlsx", false, true},
          {"paper", "NAME", "of a PDF: A4 (unless given) or Letter"}},
         1,
         runs.report},
        {"project",
         "card",
         "FILE",
         "write one result as a picture for a page or a post",
         {kStudyNamed,
          {"to", "OUT", "ends in .png or .svg", false, true},
          {"property", "NAME", "the study's first response unless given"}},
         1,
         runs.card},
        {"project",
         "open-data",
         "FILE",
         "write a study as a data package that any script can read",
         {kStudyNamed, {"to", "OUT", "a new folder, or a file that ends in .zip", false, true}},
         1,
         runs.openData},
    };
}

} // namespace inchpeg::cli
