// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/import/spreadsheet/xml_walk.h"

#include <fmt/format.h>

#include <algorithm>
#include <charconv>
#include <exception>
#include <expat.h>
#include <memory>

namespace inchpeg
{

namespace
{

std::string_view withoutPrefix(std::string_view name)
{
    return name.substr(name.rfind(':') + 1);
}

struct Walking {
    const XmlWalk &walk;
    XML_Parser parser = nullptr;
    std::exception_ptr thrown; ///< nothing is thrown through the parser, which is C
    bool declaresEntities = false;

    template <typename Step>
    void guarded(Step step)
    {
        try {
            if (!thrown)
                step();
        } catch (...) {
            thrown = std::current_exception();
            XML_StopParser(parser, XML_FALSE);
        }
    }
};

Walking &walkingOf(void *data)
{
    return *static_cast<Walking *>(data);
}

} // namespace

std::optional<std::string_view> XmlAttributes::find(std::string_view name) const
{
    for (const char *const *pair = m_pairs; *pair != nullptr; pair += 2) {
        if (withoutPrefix(pair[0]) == name)
            return pair[1];
    }
    return std::nullopt;
}

std::size_t XmlAttributes::count(std::string_view name, std::size_t otherwise, std::size_t most) const
{
    const std::string_view text = value(name);
    std::size_t number = 0;
    const auto read = std::from_chars(text.data(), text.data() + text.size(), number);
    const bool isNumber = !text.empty() && read.ec == std::errc() && read.ptr == text.data() + text.size();
    return isNumber ? std::min(number, most) : otherwise;
}

Status walkXml(std::string_view xml, const XmlWalk &walk)
{
    const std::unique_ptr<XML_ParserStruct, void (*)(XML_Parser)> parser(XML_ParserCreate(nullptr),
                                                                         XML_ParserFree);
    Walking walking{walk, parser.get(), {}, false};
    XML_SetUserData(parser.get(), &walking);
    XML_SetElementHandler(
        parser.get(),
        [](void *data, const char *name, const char **attributes) {
            Walking &at = walkingOf(data);
            at.guarded([&] { at.walk.begins(withoutPrefix(name), XmlAttributes(attributes)); });
        },
        [](void *data, const char *name) {
            Walking &at = walkingOf(data);
            at.guarded([&] { at.walk.ends(withoutPrefix(name)); });
        });
    XML_SetCharacterDataHandler(parser.get(), [](void *data, const char *text, int length) {
        Walking &at = walkingOf(data);
        at.guarded([&] { at.walk.text(std::string_view(text, static_cast<std::size_t>(length))); });
    });
    // No writer of workbooks declares entities; who does wants to fill the memory.
    XML_SetEntityDeclHandler(parser.get(), [](void *data, const char *, int, const char *, int, const char *,
                                              const char *, const char *, const char *) {
        walkingOf(data).declaresEntities = true;
        XML_StopParser(walkingOf(data).parser, XML_FALSE);
    });
    constexpr std::size_t kAtATime = std::size_t{1} << 20U;
    while (true) {
        const std::string_view part = xml.substr(0, kAtATime);
        xml.remove_prefix(part.size());
        const XML_Status status =
            XML_Parse(parser.get(), part.data(), static_cast<int>(part.size()), xml.empty() ? 1 : 0);
        if (walking.thrown)
            std::rethrow_exception(walking.thrown);
        if (status != XML_STATUS_OK)
            return badInput(walking.declaresEntities
                                ? std::string("it declares entities of its own, which no workbook does")
                                : fmt::format("{} in its line {}",
                                              XML_ErrorString(XML_GetErrorCode(parser.get())),
                                              XML_GetCurrentLineNumber(parser.get())));
        if (xml.empty())
            return ok();
    }
}

} // namespace inchpeg
