// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "core/base/result.h"

#include <functional>
#include <optional>
#include <string>
#include <string_view>

namespace inchpeg
{

/// The attributes of an element, by their names without prefix; the first of a name counts.
class XmlAttributes
{
public:
    /// pairs: name, value, name, value …, nullptr.
    explicit XmlAttributes(const char *const *pairs) : m_pairs(pairs) {}
    [[nodiscard]] std::optional<std::string_view> find(std::string_view name) const;
    [[nodiscard]] std::string_view value(std::string_view name) const { return find(name).value_or(""); }
    /// 0 to most; otherwise where there is none or it is no whole number.
    [[nodiscard]] std::size_t count(std::string_view name, std::size_t otherwise, std::size_t most) const;

private:
    const char *const *m_pairs;
};

/// What happens while an XML text is walked through; names come without their prefix.
struct XmlWalk {
    std::function<void(std::string_view name, const XmlAttributes &attributes)> begins = [](auto,
                                                                                            const auto &) {};
    std::function<void(std::string_view name)> ends = [](auto) {};
    std::function<void(std::string_view text)> text = [](auto) {};
};

/// Errors: BadInput with the line where the text is no XML, and where it declares entities of its own.
Status walkXml(std::string_view xml, const XmlWalk &walk);

} // namespace inchpeg
