// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include <nlohmann/json.hpp>

#include <exception>
#include <string>
#include <string_view>

namespace inchpeg
{

/// A text of JSON as values. Throws std::invalid_argument, with the place in words, where it is none, or
/// where it is nested more deeply than any text of the program (a chain of brackets made to exhaust the
/// stack).
nlohmann::ordered_json parsedJson(std::string_view text);

/// Values as a text on one line. What is no UTF-8 in them is replaced: a letter that cannot be told must not
/// keep the rest from being saved.
template <typename Json>
std::string jsonText(const Json &json)
{
    return json.dump(-1, ' ', false, Json::error_handler_t::replace);
}

/// Why a text could not be understood, in words for people: of a failure of the JSON library what is missing
/// or of the wrong kind, of any other its own sentence.
std::string jsonTrouble(const std::exception &failure);

} // namespace inchpeg
