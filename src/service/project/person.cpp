// SPDX-License-Identifier: GPL-3.0-or-later
#include "service/project/person.h"

#include <QDateTime>

#include <array>
#include <cstdlib>
#include <pwd.h>
#include <unistd.h>

namespace inchpeg
{

namespace
{

std::string environment(const char *name)
{
    const char *value = std::getenv(name); // NOLINT(concurrency-mt-unsafe): before any thread sets one
    return value != nullptr ? value : "";
}

} // namespace

std::string momentNow()
{
    return QDateTime::currentDateTimeUtc().toString(Qt::ISODate).toStdString();
}

std::string accountName()
{
    if (std::string set = environment("INCHPEG_PERSON"); !set.empty())
        return set;
    constexpr std::size_t kRoom = 16384;
    std::array<char, kRoom> room{};
    passwd account{};
    passwd *found = nullptr;
    const bool isKnown =
        getpwuid_r(geteuid(), &account, room.data(), room.size(), &found) == 0 && found != nullptr;
    if (isKnown && account.pw_gecos != nullptr) {
        std::string real = account.pw_gecos;
        real = real.substr(0, real.find(',')); // office and telephone follow
        if (!real.empty())
            return real;
    }
    if (std::string user = environment("USER"); !user.empty())
        return user;
    return isKnown && account.pw_name != nullptr ? account.pw_name : "unknown";
}

Person personHere(const std::optional<std::string> &name)
{
    return {name && !name->empty() ? *name : accountName(), &momentNow};
}

} // namespace inchpeg
