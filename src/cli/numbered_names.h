// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include <map>
#include <string>
#include <vector>

namespace inchpeg::cli
{

/// Numbers names in the order in which they come.
class NumberedNames
{
public:
    std::size_t place(const std::string &name)
    {
        const auto [entry, isNew] = m_places.try_emplace(name, m_names.size());
        if (isNew)
            m_names.push_back(name);
        return entry->second;
    }
    [[nodiscard]] const std::vector<std::string> &all() const { return m_names; }

private:
    std::map<std::string, std::size_t> m_places;
    std::vector<std::string> m_names;
};

} // namespace inchpeg::cli
