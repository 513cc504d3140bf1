// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "core/base/result.h"
#include "core/base/task_runner.h"
#include "core/import/workbook.h"

#include <memory>
#include <string>
#include <string_view>
#include <vector>

namespace inchpeg
{

enum class Encoding { Utf8, Utf16LittleEndian, Utf16BigEndian, Latin1, Workbook, OpenDocument };

/// "utf-8", "utf-16le", "utf-16be" or "latin-1"; "xlsx" or "ods" for a workbook.
std::string_view encodingName(Encoding encoding);

/// A text in UTF-8: a view of the file's own bytes where they are UTF-8 already, so that nothing is copied.
struct DecodedText {
    std::string_view utf8; ///< looks into the bytes, or into owner
    Encoding encoding = Encoding::Utf8;
    std::shared_ptr<const std::string> owner; ///< set where the bytes were in another encoding
    std::vector<SheetLines> sheets{};         ///< of a workbook
};

/// Text from the bytes of a file. A byte-order mark decides; without one UTF-16 is recognised by its zero
/// bytes, and what is not valid UTF-8 is taken for Latin-1. A workbook becomes the text of its sheets. Zero
/// bytes that fill up a logger's file are left out; a line end inside a quoted cell becomes a blank, and a
/// blank line behind the row keeps the numbers of the lines. The bytes must outlive the text. Errors:
/// BadInput when the bytes are empty, are not text, or are a workbook that cannot be read.
Result<DecodedText> decodeText(std::string_view bytes, const TaskRunner &run = inOrder);

/// The sheet that a line (from 1) of a workbook's text belongs to; nullptr in other files.
const SheetLines *sheetOf(const DecodedText &text, std::size_t line);

/// The error with the row of its sheet in place of the line of the workbook's text; unchanged for other
/// files.
Error inSheet(const DecodedText &text, Error error);

/// True for a text of blanks and line ends only.
bool trimmedIsEmpty(std::string_view text);

/// The next line of text without its end (CR, LF or CRLF); advances text past it.
/// Precondition: text is not empty.
std::string_view takeLine(std::string_view &text);

} // namespace inchpeg
