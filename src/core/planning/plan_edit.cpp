// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/planning/plan_edit.h"

#include "core/model/factor.h"
#include "core/units/number.h"

#include <fmt/format.h>

#include <algorithm>
#include <set>

namespace inchpeg
{

namespace
{

constexpr int kUsualFurtherPieces = 3;
constexpr double kMostPercent = 1000.0;

} // namespace

Status setQuestion(Study &study, std::string_view question)
{
    if (question.empty())
        return invalidArgument("the question needs words: it is the name of the study");
    study.question = question;
    return ok();
}

Status setMethod(Study &study, Method method)
{
    if (method == methodOf(study))
        return ok();
    const auto other = std::find_if(study.tests.begin(), study.tests.end(),
                                    [method](const StudyTest &test) { return test.method == method; });
    if (other != study.tests.end()) {
        std::rotate(study.tests.begin(), other, other + 1);
    } else {
        StudyTest &test = firstTest(study);
        for (Piece &piece : study.pieces) {
            if (piece.test == test.method)
                piece.test = method;
        }
        test.method = method;
        test.setup = {};
        if (const double usual_MPa = factsOf(method).usualStress_MPa; usual_MPa > 0.0)
            test.setup.stress_MPa = usual_MPa;
    }
    study.plan.aim.cv.reset();
    study.plan.aim.absoluteDifference.reset();
    return ok();
}

Status addTest(Study &study, Method method, const IdSource &ids)
{
    if (findTest(study, method) != nullptr)
        return invalidArgument(fmt::format("{} is planned already", methodName(method)));
    study.tests.push_back({method, kUsualFurtherPieces, {}});
    return setPiecesPerCondition(study, method, kUsualFurtherPieces, ids);
}

Status removeTest(Study &study, Method method, const IdSource &ids)
{
    if (method == methodOf(study))
        return invalidArgument("the question is asked of this test; choose another for it first");
    if (const Status status = setPiecesPerCondition(study, method, 0, ids); !status)
        return status;
    const bool left = std::any_of(study.pieces.begin(), study.pieces.end(),
                                  [method](const Piece &piece) { return piece.test == method; });
    if (left)
        return invalidArgument("some of its pieces are printed or hold data; the test stays");
    std::erase_if(study.tests, [method](const StudyTest &one) { return one.method == method; });
    return ok();
}

void setProperty(Study &study, Method method, std::string_view property)
{
    TestSetup &setup = setupOf(study, method);
    if (setup.property != property)
        setup.expected.reset();
    setup.property = property;
}

Status setDifference(Study &study, const PlannedProperty &property, std::string_view typed,
                     const std::optional<double> &expected)
{
    const bool isShare = typed.ends_with('%') || numberPrefixLength(typed) == typed.size();
    if (isShare && property.dimension == Dimension::Temperature)
        return invalidArgument(
            "a temperature in °C has no percent: type the difference with its unit, such as "
            "5 K");
    if (isShare) {
        const std::optional<double> percent = parseTypedNumber(typed.substr(0, numberPrefixLength(typed)));
        if (!percent || !(*percent > 0.0) || *percent > kMostPercent)
            return invalidArgument("type the difference that matters as a share, such as 10 %, or as a value "
                                   "with its unit");
        study.smallestDifference = *percent / 100.0;
        study.plan.aim.absoluteDifference.reset();
        return ok();
    }
    if (!expected || !(*expected > 0.0))
        return invalidArgument("a difference as a value needs to know what the reference reaches: type what "
                               "you expect under Rig, or type a share such as 10 %");
    const Result<double> value = parseQuantity(typed, workingUnit(differenceOf(property.dimension)));
    if (!value)
        return value.error();
    if (!(*value > 0.0))
        return invalidArgument("a difference above zero is wanted");
    study.plan.aim.absoluteDifference = *value;
    study.smallestDifference = *value / *expected;
    return ok();
}

Status lockSetting(Study &study, std::string_view name, std::string_view value)
{
    if (name.empty())
        return invalidArgument("choose or type the setting that is held");
    const bool varied = std::any_of(study.factors.begin(), study.factors.end(),
                                    [&](const Factor &factor) { return factor.name == name; });
    if (varied && !value.empty())
        return invalidArgument(fmt::format("{} is varied; it cannot be held as well", name));
    std::vector<LockedSetting> &locked = study.plan.locked;
    const auto known = std::find_if(locked.begin(), locked.end(),
                                    [&](const LockedSetting &one) { return one.name == name; });
    if (value.empty()) {
        if (known != locked.end())
            locked.erase(known);
    } else if (known != locked.end()) {
        known->value = value;
    } else {
        locked.push_back({std::string(name), std::string(value)});
    }
    return ok();
}

Status setSpares(Study &study, int count)
{
    if (count < 0 || count >= firstTest(study).piecesPerCondition)
        return invalidArgument("fewer spares than pieces are wanted");
    study.plan.aim.spares = count;
    return ok();
}

Status setShape(Study &study, Method method, const SpecimenShape &shape)
{
    if (const Status status = checkShape(shape); !status)
        return status;
    setupOf(study, method).shape = shape;
    if (method == methodOf(study))
        study.sectionShape = isRound(shape) ? SectionShape::Round : SectionShape::Rectangular;
    return ok();
}

void setRig(Study &study, Method method, const Workshop &workshop, std::string_view name)
{
    TestSetup &setup = setupOf(study, method);
    setup.rig = name;
    const RigCard *rig = findRig(workshop, std::string(name));
    const Reduction *reduction = reductionOf(method);
    const bool takesRange =
        reduction != nullptr && findParameter(reduction->parameters, "capacity") != nullptr;
    if (rig != nullptr && takesRange && factsOf(method).load == LoadKind::Force_N)
        setup.settings.numbers["capacity"] = rig->range;
}

Status setSlicer(Study &study, ConditionId rail, const SlicerFigure &figure)
{
    for (const std::optional<double> &one : {figure.grams, figure.minutes}) {
        if (one && !(*one > 0.0))
            return invalidArgument("the slicer's mass and time of a piece are above zero");
    }
    if (figure.grams || figure.minutes)
        study.plan.print.slicer[rail] = figure;
    else
        study.plan.print.slicer.erase(rail);
    return ok();
}

Status setStart(Study &study, std::string_view day)
{
    if (!day.empty() && !momentFrom(day))
        return invalidArgument(
            fmt::format("\"{}\" is no date; write it as year-month-day, such as 2026-11-30", day));
    study.plan.dates.start = day;
    return ok();
}

Status makeRails(Study &study, DesignKind design, const std::vector<std::vector<std::string>> &levels,
                 const IdSource &ids)
{
    std::set<ConditionId> before;
    for (const Condition &condition : study.conditions)
        before.insert(condition.id);
    if (const Status made = applyDesign(study, design, levels, ids); !made)
        return made;
    const bool saysOrientation =
        std::any_of(study.factors.begin(), study.factors.end(),
                    [](const Factor &one) { return one.name == factor::kOrientation; });
    for (Condition &condition : study.conditions) {
        if (!saysOrientation && !before.contains(condition.id))
            condition.orientation = usualOrientation(methodOf(study));
    }
    return ok();
}

void confirmCaution(Study &study, std::string_view caution, const std::optional<Confirmation> &by)
{
    std::erase_if(study.plan.confirmed, [&](const Confirmation &one) { return one.caution == caution; });
    if (by)
        study.plan.confirmed.push_back(*by);
}

} // namespace inchpeg
