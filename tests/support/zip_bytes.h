// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include <string>
#include <vector>

namespace inchpeg::test
{

struct ZipPart {
    std::string name;
    std::string bytes;
};

/// An archive of these parts, as writers of workbooks make one.
std::string zipBytes(const std::vector<ZipPart> &parts);

/// A workbook of sheets with these names; rows: of each, as XML.
std::string workbookBytes(const std::vector<std::string> &names, const std::vector<std::string> &rows);

} // namespace inchpeg::test
