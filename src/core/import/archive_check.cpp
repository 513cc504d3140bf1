// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/import/archive_check.h"

#include <fmt/format.h>

#include <algorithm>
#include <array>
#include <cstdint>
#include <zlib.h>

namespace inchpeg
{

namespace
{

constexpr std::string_view kEndOfDirectory = "PK\x05\x06";
constexpr std::string_view kDirectoryEntry = "PK\x01\x02";
constexpr std::string_view kLocalHeader = "PK\x03\x04";
constexpr std::size_t kEndSize = 22;
constexpr std::size_t kEntrySize = 46;
constexpr std::size_t kLocalSize = 30;
constexpr std::uint32_t kIsZip64 = 0xFFFFFFFF;
constexpr std::uint32_t kStored = 0;
constexpr std::uint32_t kDeflated = 8;

/// Little endian.
std::uint32_t number(std::string_view bytes, std::size_t at, std::size_t length)
{
    std::uint32_t value = 0;
    for (std::size_t i = length; i-- > 0;)
        value = value << 8U | static_cast<unsigned char>(bytes[at + i]);
    return value;
}

struct Part {
    std::string name;
    std::uint32_t packing = 0;
    std::uint32_t checksum = 0;
    std::uint32_t packedSize = 0;
    std::uint32_t size = 0;
    std::uint32_t headerAt = 0;
};

const Bytef *pointerTo(std::string_view bytes)
{
    return reinterpret_cast<const Bytef *>(bytes.data());
}

/// True where the packed bytes unpack to what the directory says, no more and no less.
bool unpacksTo(const Part &part, std::string_view packed)
{
    if (part.packing == kStored)
        return packed.size() == part.size &&
               crc32(0, pointerTo(packed), static_cast<uInt>(packed.size())) == part.checksum;
    z_stream stream = {};
    if (inflateInit2(&stream, -MAX_WBITS) != Z_OK)
        return false;
    stream.next_in = const_cast<Bytef *>(pointerTo(packed)); // zlib reads it only
    stream.avail_in = static_cast<uInt>(packed.size());
    std::array<Bytef, std::size_t{1} << 16U> block{};
    uLong checksum = crc32(0, nullptr, 0);
    std::uint64_t size = 0;
    int state = Z_OK;
    while (state == Z_OK && size <= part.size) {
        stream.next_out = block.data();
        stream.avail_out = static_cast<uInt>(block.size());
        state = inflate(&stream, Z_NO_FLUSH);
        const std::size_t made = block.size() - stream.avail_out;
        checksum = crc32(checksum, block.data(), static_cast<uInt>(made));
        size += made;
    }
    inflateEnd(&stream);
    return state == Z_STREAM_END && size == part.size && checksum == part.checksum;
}

} // namespace

std::optional<std::string> archiveDamage(std::string_view bytes)
{
    const std::size_t end = bytes.rfind(kEndOfDirectory);
    if (end == std::string_view::npos || end + kEndSize > bytes.size())
        return "its directory is missing: it was cut short";
    const std::uint32_t count = number(bytes, end + 10, 2);
    std::size_t at = number(bytes, end + 16, 4);
    if (at == kIsZip64)
        return std::nullopt;
    for (std::uint32_t i = 0; i < count; ++i) {
        if (at + kEntrySize > end || bytes.substr(at, kDirectoryEntry.size()) != kDirectoryEntry)
            return "its directory is damaged";
        Part part;
        part.packing = number(bytes, at + 10, 2);
        part.checksum = number(bytes, at + 16, 4);
        part.packedSize = number(bytes, at + 20, 4);
        part.size = number(bytes, at + 24, 4);
        part.headerAt = number(bytes, at + 42, 4);
        const std::size_t nameLength = number(bytes, at + 28, 2);
        const std::size_t rest = nameLength + number(bytes, at + 30, 2) + number(bytes, at + 32, 2);
        if (at + kEntrySize + rest > end)
            return "its directory is damaged";
        part.name = bytes.substr(at + kEntrySize, nameLength);
        at += kEntrySize + rest;
        if (part.headerAt == kIsZip64 || part.packedSize == kIsZip64 || part.size == kIsZip64 ||
            (part.packing != kStored && part.packing != kDeflated))
            continue;
        const std::size_t header = part.headerAt;
        if (header + kLocalSize > bytes.size() || bytes.substr(header, kLocalHeader.size()) != kLocalHeader)
            return fmt::format("its part {} is not where the directory has it", part.name);
        const std::size_t localName = number(bytes, header + 26, 2);
        const std::size_t from = header + kLocalSize + localName + number(bytes, header + 28, 2);
        const bool isNamedAlike = header + kLocalSize + localName <= bytes.size() &&
                                  bytes.substr(header + kLocalSize, localName) == part.name;
        if (!isNamedAlike || from > bytes.size() || part.packedSize > bytes.size() - from)
            return fmt::format("its part {} is cut short", part.name);
        if (!unpacksTo(part, bytes.substr(from, part.packedSize)))
            return fmt::format("its part {} is damaged", part.name);
    }
    return std::nullopt;
}

} // namespace inchpeg
