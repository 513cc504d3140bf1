// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include <stdexcept>

namespace inchpeg
{

/// Thrown when a caller breaks a documented promise. A stop is better than a wrong number in a record.
class ContractViolation : public std::logic_error
{
public:
    using std::logic_error::logic_error;
};

inline void require(bool promise, const char *what)
{
    if (!promise)
        throw ContractViolation(what);
}

} // namespace inchpeg
