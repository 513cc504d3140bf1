// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "core/base/contract.h"

#include <cstddef>
#include <optional>
#include <string>
#include <utility>
#include <variant>

namespace inchpeg
{

enum class ErrorCode {
    InvalidArgument, ///< an option or a typed value is missing, unknown or out of range
    BadInput,        ///< a file or its contents cannot be used
    NotFound,        ///< a named file, study or piece does not exist
    TooFewPoints,    ///< not enough data for what was asked
    Storage,         ///< the project file or the disk refused
    Cancelled,       ///< the person stopped it
    Busy,            ///< another program holds it
};

/// Where in a text something is wrong; both count from 1.
struct TextPosition {
    std::size_t line = 0;
    std::optional<std::size_t> column;
    bool operator==(const TextPosition &) const = default;
};

/// What went wrong, as a sentence that says what, where and what would be right.
struct Error {
    ErrorCode code = ErrorCode::InvalidArgument;
    std::string message;
    std::optional<TextPosition> position;
};

/// The error as a person reads it, its position in front: "line 3, column 2: …".
inline std::string errorSentence(const Error &error)
{
    if (!error.position)
        return error.message;
    std::string where = "line " + std::to_string(error.position->line);
    if (error.position->column)
        where += ", column " + std::to_string(*error.position->column);
    return where + ": " + error.message;
}

/// A value or the reason why there is none. Member names are those of std::expected (C++23), which
/// g++ 12 lacks under -std=c++20; the class is meant to become an alias for it.
template <typename T>
class [[nodiscard]] Result
{
public:
    Result(T value) : m_content(std::move(value)) {}
    Result(Error error) : m_content(std::move(error)) {}

    [[nodiscard]] bool has_value() const { return std::holds_alternative<T>(m_content); }
    explicit operator bool() const { return has_value(); }

    [[nodiscard]] const T &value() const &
    {
        require(has_value(), "Result::value() of an error");
        return std::get<T>(m_content);
    }
    [[nodiscard]] T &value() &
    {
        require(has_value(), "Result::value() of an error");
        return std::get<T>(m_content);
    }
    [[nodiscard]] T &&value() &&
    {
        require(has_value(), "Result::value() of an error");
        return std::get<T>(std::move(m_content));
    }
    [[nodiscard]] const Error &error() const
    {
        require(!has_value(), "Result::error() of a value");
        return std::get<Error>(m_content);
    }
    const T &operator*() const & { return value(); }
    T &operator*() & { return value(); }
    T operator*() &&
    {
        return std::move(*this).value();
    } ///< by value: a reference would outlive what it is part of
    const T *operator->() const { return &value(); }
    T *operator->() { return &value(); }

private:
    std::variant<T, Error> m_content;
};

/// The result of a command that yields nothing.
using Status = Result<std::monostate>;

inline Status ok()
{
    return std::monostate{};
}

inline Error invalidArgument(std::string message)
{
    return Error{ErrorCode::InvalidArgument, std::move(message), std::nullopt};
}

inline Error badInput(std::string message, std::optional<TextPosition> position = std::nullopt)
{
    return Error{ErrorCode::BadInput, std::move(message), position};
}

} // namespace inchpeg
