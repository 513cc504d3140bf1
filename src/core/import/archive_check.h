// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include <optional>
#include <string>
#include <string_view>

namespace inchpeg
{

/// Why an archive (ZIP) is not whole: its directory is missing or points beyond its bytes, or a part does not
/// unpack to the bytes whose checksum the directory has. Nothing where it is. A reader of workbooks that
/// meets damaged parts may end the whole program, so they are not shown to it. Source: PKWARE, .ZIP File
/// Format Specification 6.3, sections 4.3 and 4.4. Archives beyond 4 GB (Zip64) and other ways of packing
/// than none and deflate are not looked into.
std::optional<std::string> archiveDamage(std::string_view bytes);

} // namespace inchpeg
