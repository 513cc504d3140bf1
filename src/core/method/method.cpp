// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/method/method.h"

#include "core/base/contract.h"
#include "core/method/test_facts.h"
#include "core/specimen/section.h"

#include <fmt/format.h>

#include <algorithm>
#include <array>
#include <vector>

namespace inchpeg
{

std::span<const MethodFacts> allMethods()
{
    static const std::array all = {
#define INCHPEG_TEST(name) k##name##Test,
#include "core/method/all_tests.def"
#undef INCHPEG_TEST
    };
    return all;
}

double forceOverArea(const HeldPiece &piece, double strength_MPa)
{
    const Result<Area> area = areaOf(nominalSection(piece.shape));
    return area ? strength_MPa * in_mm2(*area) : 0.0;
}

const MethodFacts &factsOf(Method method)
{
    const std::span<const MethodFacts> all = allMethods();
    const auto found = std::find_if(all.begin(), all.end(),
                                    [method](const MethodFacts &facts) { return facts.method == method; });
    require(found != all.end(), "unknown method");
    return *found;
}

std::string_view methodName(Method method)
{
    return factsOf(method).name;
}

std::optional<Method> methodFrom(std::string_view name)
{
    for (const MethodFacts &facts : allMethods()) {
        if (facts.name == name)
            return facts.method;
    }
    return std::nullopt;
}

bool readsRecords(Method method)
{
    return reductionOf(method) != nullptr;
}

const Reduction *reductionOf(Method method)
{
    return factsOf(method).reduction;
}

Property usualProperty(Method method)
{
    const PlannedProperty &planned = factsOf(method).properties.front();
    if (const Reduction *reduction = reductionOf(method)) {
        if (const Result<Property> read = findProperty(*reduction, planned.name))
            return *read;
    }
    return {planned.name, planned.label, planned.dimension, "Records of this test are not read yet"};
}

const MarkerKind *findMarker(Method method, std::string_view name)
{
    const Reduction *reduction = reductionOf(method);
    if (reduction == nullptr)
        return nullptr;
    const auto found = std::find_if(reduction->markers.begin(), reduction->markers.end(),
                                    [&](const MarkerKind &kind) { return kind.name == name; });
    return found == reduction->markers.end() ? nullptr : &*found;
}

std::span<const Reduction *const> allReductions()
{
    static const std::vector<const Reduction *> all = [] {
        std::vector<const Reduction *> found;
        for (const MethodFacts &facts : allMethods()) {
            if (facts.reduction != nullptr &&
                std::find(found.begin(), found.end(), facts.reduction) == found.end())
                found.push_back(facts.reduction);
        }
        return found;
    }();
    return all;
}

Result<Property> findProperty(const Reduction &reduction, std::string_view name)
{
    std::string known;
    for (const Property &property : reduction.properties) {
        if (property.name == name)
            return property;
        known += (known.empty() ? "" : ", ") + std::string(property.name);
    }
    return Error{
        ErrorCode::NotFound, fmt::format("there is no property \"{}\"; known are {}", name, known), {}};
}

std::optional<std::size_t> placedSample(const PlacedMarkers &placed, std::string_view name)
{
    const auto found = placed.find(name);
    return found != placed.end() && found->second
               ? std::optional(static_cast<std::size_t>(std::max(0.0, *found->second)))
               : std::nullopt;
}

std::string_view orientationName(Orientation orientation)
{
    return orientation == Orientation::Flat ? "flat" : "standing";
}

Orientation usualOrientation(Method method)
{
    return factsOf(method).isAcrossLayers ? Orientation::Standing : Orientation::Flat;
}

std::optional<Orientation> orientationFrom(std::string_view name)
{
    for (const Orientation orientation : {Orientation::Flat, Orientation::Standing}) {
        if (orientationName(orientation) == name)
            return orientation;
    }
    return std::nullopt;
}

} // namespace inchpeg
