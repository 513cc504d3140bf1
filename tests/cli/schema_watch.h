// SPDX-License-Identifier: GPL-3.0-or-later
// Every file that a test of the command line writes or reads in a form of ours is held against its schema
// (docs/schemas) when the tests end.
#pragma once

#include <string>
#include <vector>

namespace inchpeg::test
{

/// Keeps a text of this schema ("verdict") until the end.
void watchSchema(const std::string &schema, const std::string &text);
/// What a successful call read or printed that has a schema. input: its standard input.
void watchCall(const std::vector<std::string> &arguments, const std::string &output);
/// Of each text that was kept what does not keep to its schema, as the validator says it; empty: all do.
std::string schemaFindings();

} // namespace inchpeg::test
