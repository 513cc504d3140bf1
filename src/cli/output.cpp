// SPDX-License-Identifier: GPL-3.0-or-later
#include "cli/output.h"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>
#include <utility>
#include <vector>

namespace inchpeg::cli
{

namespace
{

std::string quoted(const std::string &text)
{
    return Json(text).dump(-1, ' ', false, Json::error_handler_t::replace);
}

bool isFlat(const Json &value)
{
    return std::none_of(value.begin(), value.end(), [](const Json &item) { return item.is_structured(); });
}

void appendJson(std::string &out, const Json &value, std::size_t depth)
{
    const auto newLine = [&out](std::size_t level) { out += '\n' + std::string(2 * level, ' '); };
    if (value.is_number_float()) {
        out += fmt::format("{:.17g}", value.get<double>());
    } else if (value.is_string()) {
        out += quoted(value.get<std::string>());
    } else if (!value.is_structured() || value.empty()) {
        out += value.dump();
    } else {
        const bool object = value.is_object();
        const bool oneLine = !object && isFlat(value);
        out += object ? '{' : '[';
        bool first = true;
        for (const auto &item : value.items()) {
            if (!std::exchange(first, false))
                out += oneLine ? ", " : ",";
            if (!oneLine)
                newLine(depth + 1);
            if (object)
                out += quoted(item.key()) + ": ";
            appendJson(out, item.value(), depth + 1);
        }
        if (!oneLine)
            newLine(depth);
        out += object ? '}' : ']';
    }
}

std::string shortText(const Json &value)
{
    if (value.is_null())
        return "-";
    if (value.is_string())
        return value.get<std::string>();
    if (value.is_boolean())
        return value.get<bool>() ? "yes" : "no";
    if (value.is_number_float())
        return fmt::format("{:.6g}", value.get<double>());
    if (value.is_array()) {
        std::string out;
        for (const Json &item : value)
            out += (out.empty() ? "" : " .. ") + shortText(item);
        return out;
    }
    return value.dump();
}

using Cells = std::vector<std::pair<std::string, std::string>>;

void flatten(const Json &value, const std::string &prefix, Cells &cells)
{
    for (const auto &item : value.items()) {
        const std::string key = prefix.empty() ? item.key() : prefix + "." + item.key();
        if (item.value().is_object())
            flatten(item.value(), key, cells);
        else
            cells.emplace_back(key, shortText(item.value()));
    }
}

/// Characters, not bytes: continuation bytes of UTF-8 take no place.
std::size_t shownWidth(std::string_view text)
{
    return static_cast<std::size_t>(std::count_if(
        text.begin(), text.end(), [](char c) { return (static_cast<unsigned char>(c) & 0xC0U) != 0x80U; }));
}

std::string padded(const std::string &text, std::size_t width)
{
    return text + std::string(width - std::min(width, shownWidth(text)), ' ');
}

constexpr std::size_t kPageWidth = 80;

/// A text in lines of the page, further ones indented; a word that is longer stands alone.
void appendWrapped(std::string &out, const std::string &text, std::size_t indent)
{
    std::size_t column = indent;
    std::size_t at = 0;
    bool isFirst = true;
    while (at < text.size()) {
        const std::size_t end = std::min(text.find_first_of(" \n", at), text.size());
        const std::string word = text.substr(at, end - at);
        const std::size_t width = shownWidth(word);
        if (!isFirst && column + 1 + width > kPageWidth) {
            out += '\n' + std::string(indent, ' ');
            column = indent;
            isFirst = true;
        }
        out += (isFirst ? "" : " ") + word;
        column += width + (isFirst ? 0 : 1);
        isFirst = false;
        at = end + 1;
    }
    out += '\n';
}

/// Rows that are too wide for a table of the page, one below the other.
void appendRows(std::string &out, const std::vector<Cells> &rows)
{
    for (std::size_t r = 0; r < rows.size(); ++r) {
        out += r == 0 ? "" : "\n";
        std::size_t width = 0;
        for (const auto &[key, text] : rows[r])
            width = std::max(width, shownWidth(key));
        for (const auto &[key, text] : rows[r]) {
            out += "  " + padded(key, width) + "  ";
            appendWrapped(out, text, width + 4);
        }
    }
}

void appendTable(std::string &out, const Json &list)
{
    std::vector<std::string> heads;
    std::vector<Cells> rows;
    for (const Json &entry : list) {
        Cells cells;
        flatten(entry, {}, cells);
        for (const auto &[key, text] : cells) {
            if (std::find(heads.begin(), heads.end(), key) == heads.end())
                heads.push_back(key);
        }
        rows.push_back(std::move(cells));
    }
    const auto cellOf = [](const Cells &cells, const std::string &key) {
        const auto found =
            std::find_if(cells.begin(), cells.end(), [&](const auto &cell) { return cell.first == key; });
        return found == cells.end() ? std::string("-") : found->second;
    };
    std::vector<std::string> text(rows.size() + 1);
    for (const std::string &head : heads) {
        std::size_t width = shownWidth(head);
        for (const Cells &cells : rows)
            width = std::max(width, shownWidth(cellOf(cells, head)));
        text[0] += padded(head, width + 2);
        for (std::size_t r = 0; r < rows.size(); ++r)
            text[r + 1] += padded(cellOf(rows[r], head), width + 2);
    }
    for (std::string &line : text)
        line.erase(line.find_last_not_of(' ') + 1);
    if (std::any_of(text.begin(), text.end(),
                    [](const std::string &line) { return shownWidth(line) > kPageWidth; })) {
        appendRows(out, rows);
        return;
    }
    for (const std::string &line : text)
        out += line + '\n';
}

void appendPlain(std::string &out, const Json &value, const std::string &prefix)
{
    for (const auto &item : value.items()) {
        const std::string key = prefix.empty() ? item.key() : prefix + "." + item.key();
        const Json &content = item.value();
        if (content.is_object()) {
            appendPlain(out, content, key);
        } else if (content.is_array() && !content.empty() && content.front().is_object()) {
            out += '\n' + key + '\n';
            appendTable(out, content);
        } else if (content.is_array() && !content.empty() && content.front().is_string()) {
            out += '\n' + key + '\n';
            for (const Json &line : content) {
                out += "  ";
                appendWrapped(out, line.get<std::string>(), 4);
            }
        } else {
            constexpr std::size_t kKeys = 24;
            out += padded(key, kKeys) + "  ";
            appendWrapped(out, shortText(content), kKeys + 2);
        }
    }
}

} // namespace

std::string wrappedText(const std::string &text, std::size_t indent)
{
    std::string out;
    appendWrapped(out, text, indent);
    return out;
}

Json orNull(const std::optional<double> &value)
{
    return value && std::isfinite(*value) ? Json(*value) : Json(nullptr);
}

Json orNull(const std::optional<Interval> &interval)
{
    return interval ? Json::array({interval->low, interval->high}) : Json(nullptr);
}

std::string jsonText(const Json &value)
{
    std::string out;
    appendJson(out, value, 0);
    return out + '\n';
}

std::string plainText(const Json &value)
{
    std::string out;
    appendPlain(out, value, {});
    return out;
}

} // namespace inchpeg::cli
