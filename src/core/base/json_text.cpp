// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/base/json_text.h"

#include <fmt/format.h>

#include <stdexcept>

namespace inchpeg
{

namespace
{

constexpr int kDeepest = 64;

/// How deeply brackets are nested, those inside texts left out.
int depthOf(std::string_view text)
{
    int depth = 0;
    int deepest = 0;
    bool inText = false;
    for (std::size_t i = 0; i < text.size(); ++i) {
        const char c = text[i];
        if (inText) {
            if (c == '\\')
                ++i;
            else if (c == '"')
                inText = false;
        } else if (c == '"') {
            inText = true;
        } else if (c == '[' || c == '{') {
            deepest = std::max(deepest, ++depth);
        } else if (c == ']' || c == '}') {
            --depth;
        }
    }
    return deepest;
}

/// What stands between the first pair of single quotes of a message.
std::string quotedIn(std::string_view message)
{
    const std::size_t open = message.find('\'');
    const std::size_t close = open == std::string_view::npos ? open : message.find('\'', open + 1);
    return close == std::string_view::npos ? std::string()
                                           : std::string(message.substr(open + 1, close - open - 1));
}

} // namespace

nlohmann::ordered_json parsedJson(std::string_view text)
{
    if (depthOf(text) > kDeepest)
        throw std::invalid_argument(fmt::format("it is nested more than {} levels deep", kDeepest));
    try {
        return nlohmann::ordered_json::parse(text);
    } catch (const nlohmann::json::parse_error &failure) {
        throw std::invalid_argument(
            text.empty() ? std::string("it is empty")
                         : fmt::format("it is damaged at character {} of {}", failure.byte, text.size()));
    }
}

std::string jsonTrouble(const std::exception &failure)
{
    if (dynamic_cast<const nlohmann::json::out_of_range *>(&failure) != nullptr) {
        const std::string key = quotedIn(failure.what());
        return key.empty() ? "a part of it is missing" : fmt::format("\"{}\" is missing", key);
    }
    if (dynamic_cast<const nlohmann::json::exception *>(&failure) != nullptr)
        return "a value in it is of the wrong kind (text, number or list)";
    return failure.what();
}

} // namespace inchpeg
