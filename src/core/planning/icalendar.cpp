// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/planning/icalendar.h"

#include <fmt/format.h>

namespace inchpeg
{

namespace
{

std::string compactMoment(Moment moment)
{
    std::string text;
    for (const char c : momentText(moment)) {
        if (c != '-' && c != ':')
            text += c;
    }
    return text + "00";
}

std::string utcText(Moment moment, const ZoneOffset &offset)
{
    return compactMoment(moment - offset(moment)) + "Z";
}

std::string escaped(std::string_view text)
{
    std::string out;
    for (const char c : text) {
        if (c == '\\' || c == ';' || c == ',')
            out += '\\';
        if (c == '\n')
            out += "\\n";
        else
            out += c;
    }
    return out;
}

/// A content line, folded so that no line is longer than 75 octets and no UTF-8 sequence is cut.
std::string contentLine(std::string_view text)
{
    constexpr std::size_t kLongestLine = 75;
    std::string out;
    std::size_t room = kLongestLine;
    for (std::size_t i = 0; i < text.size();) {
        std::size_t length = 1;
        while (i + length < text.size() && (static_cast<unsigned char>(text[i + length]) & 0xC0U) == 0x80U)
            ++length;
        if (length > room) {
            out += "\r\n ";
            room = kLongestLine - 1;
        }
        out.append(text.substr(i, length));
        room -= length;
        i += length;
    }
    return out + "\r\n";
}

} // namespace

std::string iCalendarText(const std::vector<CalendarEntry> &calendar,
                          const std::map<StudyId, std::string> &questions, const std::string &stamp,
                          const ZoneOffset &offset)
{
    std::string text = contentLine("BEGIN:VCALENDAR") + contentLine("VERSION:2.0") +
                       contentLine("PRODID:-//Inch Peg//plan//EN") + contentLine("CALSCALE:GREGORIAN");
    std::map<std::string, int> sameId;
    for (const CalendarEntry &entry : calendar) {
        const std::string id =
            fmt::format("{}-{}-{}", entry.study.value, workName(entry.kind), compactMoment(entry.start));
        const auto question = questions.find(entry.study);
        text += contentLine("BEGIN:VEVENT");
        text += contentLine(fmt::format("UID:{}-{}@inch-peg", id, ++sameId[id]));
        text += contentLine("DTSTAMP:" + stamp);
        text += contentLine("DTSTART:" + utcText(entry.start, offset));
        text += contentLine("DTEND:" + utcText(entry.end, offset));
        text += contentLine("SUMMARY:" + escaped(entry.what));
        if (!entry.resource.empty())
            text += contentLine("LOCATION:" + escaped(entry.resource));
        std::string description = question == questions.end() ? std::string() : question->second;
        if (const std::string moved = movedText(entry); !moved.empty())
            description = moved + (description.empty() ? "" : "\n" + description);
        if (!description.empty())
            text += contentLine("DESCRIPTION:" + escaped(description));
        text += contentLine(entry.attended ? "TRANSP:OPAQUE" : "TRANSP:TRANSPARENT");
        text += contentLine("END:VEVENT");
    }
    return text + contentLine("END:VCALENDAR");
}

} // namespace inchpeg
