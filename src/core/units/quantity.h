// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

namespace inchpeg
{

/// A number with a physical dimension, kept in SI base units; a wrong unit does not compile.
/// The parameters are the exponents of kilogram, metre and second.
template <int Mass, int Length, int Time>
class Quantity
{
public:
    constexpr Quantity() = default;
    [[nodiscard]] static constexpr Quantity fromSi(double value) { return Quantity(value); }
    [[nodiscard]] constexpr double si() const { return m_value; }

    auto operator<=>(const Quantity &) const = default;
    constexpr Quantity operator+(Quantity other) const { return Quantity(m_value + other.m_value); }
    constexpr Quantity operator-(Quantity other) const { return Quantity(m_value - other.m_value); }
    constexpr Quantity operator-() const { return Quantity(-m_value); }
    constexpr Quantity operator*(double factor) const { return Quantity(m_value * factor); }
    constexpr Quantity operator/(double divisor) const { return Quantity(m_value / divisor); }

    template <int M, int L, int T>
    constexpr auto operator*(Quantity<M, L, T> other) const
    {
        return Quantity<Mass + M, Length + L, Time + T>::fromSi(m_value * other.si());
    }
    template <int M, int L, int T>
    constexpr auto operator/(Quantity<M, L, T> other) const
    {
        return Quantity<Mass - M, Length - L, Time - T>::fromSi(m_value / other.si());
    }

private:
    explicit constexpr Quantity(double value) : m_value(value) {}
    double m_value = 0.0;
};

using Mass = Quantity<1, 0, 0>;
using Length = Quantity<0, 1, 0>;
using Area = Quantity<0, 2, 0>;
using Duration = Quantity<0, 0, 1>;
using Force = Quantity<1, 1, -2>;
using Stress = Quantity<1, -1, -2>;
using Energy = Quantity<1, 2, -2>;

inline constexpr double kSecondsPerHour = 3600.0;

constexpr Length millimetres(double value)
{
    return Length::fromSi(value / 1e3);
}
constexpr Area squareMillimetres(double value)
{
    return Area::fromSi(value / 1e6);
}
constexpr Force newtons(double value)
{
    return Force::fromSi(value);
}
constexpr Stress megapascals(double value)
{
    return Stress::fromSi(value * 1e6);
}

constexpr double in_mm(Length length)
{
    return length.si() * 1e3;
}
constexpr double in_mm2(Area area)
{
    return area.si() * 1e6;
}
constexpr double in_N(Force force)
{
    return force.si();
}
constexpr double in_MPa(Stress stress)
{
    return stress.si() / 1e6;
}

} // namespace inchpeg
