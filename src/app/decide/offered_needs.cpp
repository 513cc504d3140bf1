// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/decide/offered_needs.h"

#include <QCoreApplication>

#include <algorithm>
#include <array>

namespace inchpeg::app
{

namespace
{

constexpr std::array kOffered = {
    std::pair{NeedKind::Strength, QT_TRANSLATE_NOOP("Decide", "carries this stress")},
    std::pair{NeedKind::Layers, QT_TRANSLATE_NOOP("Decide", "carries this stress across its layers")},
    std::pair{NeedKind::Load, QT_TRANSLATE_NOOP("Decide", "carries this force in a pull-out")},
    std::pair{NeedKind::Heat, QT_TRANSLATE_NOOP("Decide", "keeps its shape when warm, under a load")},
    std::pair{NeedKind::Softens, QT_TRANSLATE_NOOP("Decide", "does not sag by itself when warm")},
    std::pair{NeedKind::Creep, QT_TRANSLATE_NOOP("Decide", "gives way no more under a constant load")},
    std::pair{NeedKind::Blow, QT_TRANSLATE_NOOP("Decide", "survives this blow")},
    std::pair{NeedKind::Stiff, QT_TRANSLATE_NOOP("Decide", "bends no more: this modulus")},
    std::pair{NeedKind::Distance, QT_TRANSLATE_NOOP("Decide", "holds a distance: shrinks at most")},
    std::pair{NeedKind::Weight, QT_TRANSLATE_NOOP("Decide", "a piece weighs at most")},
    std::pair{NeedKind::Time, QT_TRANSLATE_NOOP("Decide", "a piece prints in at most")},
    std::pair{NeedKind::Price, QT_TRANSLATE_NOOP("Decide", "material of a piece costs at most")},
    std::pair{NeedKind::Weather, QT_TRANSLATE_NOOP("Decide", "stands weather, 1 to 5")},
    std::pair{NeedKind::Printer, QT_TRANSLATE_NOOP("Decide", "prints on an open printer up to 260 °C")},
    std::pair{NeedKind::Grade, QT_TRANSLATE_NOOP("Decide", "prints as cleanly as this grade")},
    std::pair{NeedKind::Never, QT_TRANSLATE_NOOP("Decide", "food, skin, flame or people's safety")},
};

} // namespace

std::vector<NeedKind> offeredNeeds()
{
    std::vector<NeedKind> kinds;
    for (const auto &[kind, words] : kOffered)
        kinds.push_back(kind);
    return kinds;
}

QString needWords(NeedKind kind)
{
    const auto found =
        std::find_if(kOffered.begin(), kOffered.end(), [kind](const auto &one) { return one.first == kind; });
    require(found != kOffered.end(), "every kind of need is offered");
    return QCoreApplication::translate("Decide", found->second);
}

Need usualNeed(NeedKind kind)
{
    Need need;
    need.kind = kind;
    switch (kind) {
    case NeedKind::Strength:
    case NeedKind::Layers:
        need.limit = 10.0;
        need.safetyFactor = 2.0;
        break;
    case NeedKind::Load:
        need.limit = 200.0;
        need.safetyFactor = 2.0;
        break;
    case NeedKind::Heat:
        need.limit = 60.0;
        need.load_MPa = 0.45;
        break;
    case NeedKind::Softens:
        need.limit = 60.0;
        break;
    case NeedKind::Creep:
        need.limit = 0.01;
        break;
    case NeedKind::Blow:
        need.limit = 5.0;
        break;
    case NeedKind::Stiff:
        need.limit = 1500.0;
        break;
    case NeedKind::Distance:
        need.limit = 0.4;
        break;
    case NeedKind::Weight:
        need.limit = 0.01;
        break;
    case NeedKind::Time:
        need.limit = 1800.0;
        break;
    case NeedKind::Printer:
        need.printer.nozzle_C = 260.0;
        need.printer.canDry = true;
        break;
    case NeedKind::Weather:
        need.limit = 3.0;
        break;
    case NeedKind::Grade:
        need.limit = 4.0;
        break;
    case NeedKind::Price:
    case NeedKind::Never:
        need.limit = 1.0;
        break;
    }
    need.isMust = kind != NeedKind::Weight && kind != NeedKind::Time && kind != NeedKind::Price;
    return need;
}

} // namespace inchpeg::app
