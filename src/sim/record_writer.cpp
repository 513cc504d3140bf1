// SPDX-License-Identifier: GPL-3.0-or-later
#include "sim/record_writer.h"

#include "core/units/unit.h"

#include <fmt/format.h>

#include <algorithm>

namespace inchpeg::sim
{

namespace
{

std::string withDecimalComma(std::string text)
{
    std::replace(text.begin(), text.end(), '.', ',');
    return text;
}

std::string grouped(long long value)
{
    std::string digits = std::to_string(value < 0 ? -value : value);
    for (std::size_t at = digits.size(); at > 3;)
        digits.insert(at -= 3, ".");
    return (value < 0 ? "-" : "") + digits;
}

std::string toLatin1(const std::string &utf8)
{
    std::string out;
    for (std::size_t i = 0; i < utf8.size(); ++i) {
        const auto c = static_cast<unsigned char>(utf8[i]);
        if (c >= 0xC2 && c <= 0xC3 && i + 1 < utf8.size())
            out += static_cast<char>(((c & 0x03U) << 6U) | (static_cast<unsigned char>(utf8[++i]) & 0x3FU));
        else
            out += utf8[i];
    }
    return out;
}

std::string toUtf16(const std::string &ascii)
{
    std::string out = "\xFF\xFE";
    for (char c : ascii) {
        out += c;
        out += '\0';
    }
    return out;
}

template <typename Row>
std::string rows(const ForceCurve &curve, Row row)
{
    std::string out;
    for (std::size_t i = 0; i < curve.force_N.size(); ++i)
        out += row(curve.time_s[i], curve.force_N[i], curve.extension_mm[i]);
    return out;
}

} // namespace

std::string recordBytes(const ForceCurve &curve, Dialect dialect, const std::string &title)
{
    switch (dialect) {
    case Dialect::CommaUtf8:
        return "time_s,force_N,extension_mm\n" + rows(curve, [](double t, double f, double e) {
                   return fmt::format("{:.2f},{:.3f},{:.5f}\n", t, f, e);
               });
    case Dialect::SemicolonComma:
        return toLatin1("Prüfung;" + title +
                        "\r\nPrüfgeschwindigkeit;5 mm/min\r\n\r\nZeit [s];Kraft [N];Weg [mm]\r\n" +
                        rows(curve, [](double t, double f, double e) {
                            return withDecimalComma(fmt::format("{:.2f};{:.3f};{:.5f}\r\n", t, f, e));
                        }));
    case Dialect::TabUtf16:
        return toUtf16("Time\tLoad\tExtension\ns\tN\tmm\n" + rows(curve, [](double t, double f, double e) {
                           return fmt::format("{:.2f}\t{:.3f}\t{:.5f}\n", t, f, e);
                       }));
    case Dialect::PoundsInches:
        return "# " + title + "\n\"Time (s)\",\"Load (lbf)\",\"Extension (in)\"\n" +
               rows(curve, [](double t, double f, double e) {
                   return fmt::format("\"{:.2f}\",\"{:.5f}\",\"{:.7f}\"\n", t,
                                      findUnit("lbf")->fromWorking(f), findUnit("in")->fromWorking(e));
               });
    case Dialect::KilogramForceSpaces:
        return "time[s]  force[kgf]  travel[mm]\n" + rows(curve, [](double t, double f, double e) {
                   return fmt::format("{:8.2f}  {:10.4f}  {:10.5f}\n", t, findUnit("kgf")->fromWorking(f), e);
               });
    case Dialect::GroupedThousands:
        return "t (s);F (mN);Extension (mm)\n" + rows(curve, [](double t, double f, double e) {
                   return withDecimalComma(fmt::format("{:.2f};", t)) +
                          grouped(static_cast<long long>(f * 1e3)) +
                          withDecimalComma(fmt::format(";{:.5f}\n", e));
               });
    }
    throw ContractViolation("unknown dialect");
}

} // namespace inchpeg::sim
