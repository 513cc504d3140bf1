// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include <cstdlib>
#include <unistd.h>

namespace inchpeg::test
{

/// Root may read and write everywhere; as another user, to the end of the scope, the usual rules hold.
class AsNobody
{
public:
    AsNobody()
    {
        if (::geteuid() == 0)
            m_dropped = ::seteuid(kNobody) == 0;
    }
    ~AsNobody()
    {
        if (m_dropped && ::seteuid(0) != 0)
            std::abort();
    }
    AsNobody(const AsNobody &) = delete;
    AsNobody &operator=(const AsNobody &) = delete;

private:
    static constexpr uid_t kNobody = 65534;
    bool m_dropped = false;
};

} // namespace inchpeg::test
