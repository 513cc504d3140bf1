// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/decide/sheet_values.h"

#include "core/compare/verdict.h"
#include "core/decide/same_load.h"
#include "core/method/value_text.h"
#include "core/planning/planned_test.h"
#include "core/text/list_text.h"

#include <fmt/format.h>

#include <algorithm>
#include <array>
#include <cctype>
#include <cmath>

namespace inchpeg
{

namespace
{

constexpr int kSheetDigits = 3;

std::string lettersOf(std::string_view text)
{
    std::string letters;
    for (const char c : text) {
        if (std::isalpha(static_cast<unsigned char>(c)) != 0)
            letters += static_cast<char>(std::tolower(static_cast<unsigned char>(c)));
    }
    return letters;
}

/// Other names that sheets use.
constexpr std::array<std::pair<std::string_view, std::string_view>, 9> kSheetNames = {{
    {"youngsmodulus", "tensilemodulus"},
    {"elasticmodulus", "tensilemodulus"},
    {"bendingmodulus", "flexuralmodulus"},
    {"bendingstrength", "flexuralstrength"},
    {"elongationatbreak", "strainatbreak"},
    {"hdt", "heatdeflectiontemperature"},
    {"vicat", "softeningtemperature"},
    {"charpynotched", "impactstrength"},
    {"notchedimpact", "impactstrength"},
}};

std::string whyNot(const Study &study, const Condition &condition, const PlannedTest &test,
                   const SheetValue &sheet)
{
    const bool isFlat = condition.orientation == Orientation::Flat;
    if (sheet.orientation.empty() ? !isFlat : sheet.orientation != orientationName(condition.orientation))
        return fmt::format(
            "the sheet's pieces {} {}, these are {}", sheet.orientation.empty() ? "are taken for" : "are",
            sheet.orientation.empty() ? "flat" : sheet.orientation, orientationName(condition.orientation));
    if (sheet.annealed != isAnnealed(study, condition))
        return sheet.annealed ? "the sheet's pieces are annealed, these are as printed"
                              : "the sheet's pieces are as they came, these are annealed";
    const bool hasLoad = isReadUnderLoad(test.method);
    if (hasLoad && !sheet.load.empty()) {
        const Result<double> load_MPa = parseQuantity(sheet.load, workingUnit(Dimension::Stress));
        const double own_MPa = test.setup.stress_MPa;
        if (!load_MPa || !isSameLoad(*load_MPa, own_MPa))
            return fmt::format("the sheet's load is {}, here it is {:g} MPa", sheet.load, own_MPa);
    }
    if (hasLoad && sheet.load.empty())
        return "the sheet does not say its load";
    return {};
}

} // namespace

bool isSheetNameOf(std::string_view sheetName, const Property &property)
{
    std::string letters = lettersOf(sheetName);
    for (const auto &[other, meant] : kSheetNames) {
        if (letters == other)
            letters = meant;
    }
    const std::string own = lettersOf(property.name);
    return letters.size() >= 6 && own.starts_with(letters);
}

std::vector<SheetBeside> sheetsBeside(const Study &study, Method test, const Property &property,
                                      const Workshop &workshop)
{
    std::vector<SheetBeside> found;
    const std::vector<PlannedTest> tests = plannedTests(study);
    const auto planned = std::find_if(tests.begin(), tests.end(),
                                      [test](const PlannedTest &one) { return one.method == test; });
    if (planned == tests.end() || !hasMean(property))
        return found;
    for (const Condition &condition : study.conditions) {
        const SpoolCard *spool = findSpool(workshop, condition.material);
        if (spool == nullptr)
            continue;
        for (const SheetValue &sheet : spool->sheet) {
            if (!isSheetNameOf(sheet.property, property))
                continue;
            const Result<double> value =
                parseQuantity(fmt::format("{} {}", sheet.value, sheet.unit), workingUnit(property.dimension));
            if (value)
                found.push_back({condition.id, sheet, *value, whyNot(study, condition, *planned, sheet)});
        }
    }
    return found;
}

std::vector<std::string> sheetSentences(const Study &study, const StudyComparison &comparison, Method test,
                                        const Workshop &workshop, const Notation &notation)
{
    std::vector<std::string> sentences;
    std::vector<std::pair<std::string, std::vector<std::string>>>
        notCompared; ///< what is said, of which rails
    const Property &property = comparison.property;
    for (const SheetBeside &beside : sheetsBeside(study, test, property, workshop)) {
        const auto rail =
            std::find_if(comparison.rails.begin(), comparison.rails.end(),
                         [&](const RailComparison &one) { return one.condition == beside.condition; });
        if (rail == comparison.rails.end() || !rail->summary.mean)
            continue;
        std::string how = beside.sheet.standard;
        for (const std::string &more : {beside.sheet.load, beside.sheet.orientation,
                                        std::string(beside.sheet.annealed ? "annealed" : "")})
            how += more.empty() ? "" : (how.empty() ? "" : ", ") + more;
        const std::string title = distinctTitle(study, *findCondition(study, beside.condition));
        const std::string told =
            fmt::format("data sheet: {}{}", valueText(property, beside.value, kSheetDigits, notation),
                        how.empty() ? "" : " (" + how + ")");
        if (!beside.whyNot.empty()) {
            const std::string said = fmt::format("{}; not compared: {}.", told, beside.whyNot);
            const auto same = std::find_if(notCompared.begin(), notCompared.end(),
                                           [&](const auto &one) { return one.first == said; });
            if (same != notCompared.end())
                same->second.push_back(title);
            else
                notCompared.push_back({said, {title}});
            continue;
        }
        const std::string sheet = fmt::format("{}, {}", title, told);
        const double difference = *rail->summary.mean - beside.value;
        const std::string amount = isComparedAsRatio(property) && beside.value > 0.0
                                       ? notation.percent(std::abs(difference) / beside.value)
                                       : propertyDifferenceText(property, std::abs(difference), 1, notation);
        sentences.push_back(
            fmt::format("{}; here {}{} ({} piece{}), {} {} it.", sheet, rail->bounds > 0 ? "at least " : "",
                        valueText(property, *rail->summary.mean, kSheetDigits, notation), rail->summary.n,
                        rail->summary.n == 1 ? "" : "s", amount, difference < 0.0 ? "below" : "above"));
    }
    for (const auto &[said, rails] : notCompared)
        sentences.push_back(fmt::format("{}, {}", listText(rails), said));
    return sentences;
}

} // namespace inchpeg
