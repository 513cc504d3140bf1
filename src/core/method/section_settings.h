// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "core/method/settings.h"
#include "core/specimen/section.h"

namespace inchpeg
{

/// The cross-section among the settings: width and thickness, or area, or diameter.
/// Errors: InvalidArgument where it is given in more than one way, or not whole.
Result<Section> sectionFrom(const MethodSettings &settings);

/// The same the other way round.
void setSection(MethodSettings &settings, const Section &section);

/// The parameters of a section, for a test's list.
inline constexpr Parameter kWidth{"width", "Width", "the piece's width", "mm", ParameterSource::Piece};
inline constexpr Parameter kThickness{"thickness", "Thickness",
                                      "the piece's thickness, in the direction of bending where it is bent",
                                      "mm", ParameterSource::Piece};
inline constexpr Parameter kArea{"area", "Area", "the piece's cross-section", "mm²", ParameterSource::Piece};
inline constexpr Parameter kDiameter{"diameter", "Diameter", "the round piece's diameter", "mm",
                                     ParameterSource::Piece};

/// The same parameter, required.
constexpr Parameter required(Parameter parameter)
{
    parameter.isRequired = true;
    return parameter;
}

} // namespace inchpeg
