// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/planning/dead_load.h"

#include "core/specimen/section_modulus.h"

namespace inchpeg
{

namespace
{

constexpr double kStandardStrain = 0.002;

} // namespace

Force threePointForce(Stress stress, Length width, Length thickness, Length span)
{
    return Force::fromSi(2.0 * stress.si() * width.si() * thickness.si() * thickness.si() /
                         (3.0 * span.si()));
}

Stress threePointStress(Force force, Length width, Length thickness, Length span)
{
    return Stress::fromSi(3.0 * force.si() * span.si() /
                          (2.0 * width.si() * thickness.si() * thickness.si()));
}

Force bendingForce(Stress stress, const SpecimenShape &shape, Fixture fixture, double length_mm)
{
    if (!(length_mm > 0.0))
        return newtons(0.0);
    const double points = fixture == Fixture::ThreePoint ? 4.0 : 1.0;
    return newtons(points * in_MPa(stress) * bendingSectionModulus_mm3(shape) / length_mm);
}

Mass deadMass(Force force)
{
    return Mass::fromSi(force.si() / kStandardGravity_m_per_s2);
}

Force weightOf(Mass mass)
{
    return Force::fromSi(mass.si() * kStandardGravity_m_per_s2);
}

Length standardDeflection(Length span, Length thickness)
{
    return Length::fromSi(span.si() * span.si() * kStandardStrain / (6.0 * thickness.si()));
}

} // namespace inchpeg
