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

/// Why a text could not be understood, in words for people: of a failure of the JSON library what is missing
/// or of the wrong kind, of any other its own sentence.
std::string jsonTrouble(const std::exception &failure);

} // namespace inchpeg
