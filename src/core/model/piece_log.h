// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "core/base/ids.h"
#include "core/base/result.h"
#include "core/model/measured_with.h"

#include <optional>
#include <string>
#include <string_view>
#include <vector>

namespace inchpeg
{

/// What callipers read on a piece, in the order of reading; empty where nothing was measured.
struct SizeReadings {
    std::vector<double> width_mm;
    std::vector<double> thickness_mm;
    std::vector<double> diameter_mm;
    bool operator==(const SizeReadings &) const = default;
};

/// An axis of the printer along which a length was printed.
enum class PrintAxis { X, Y, Z };
inline constexpr PrintAxis kPrintAxes[] = {PrintAxis::X, PrintAxis::Y, PrintAxis::Z};
std::string_view axisName(PrintAxis axis); ///< "X", "Y", "Z"
std::optional<PrintAxis> axisFrom(std::string_view name);

/// A known length that was measured again, for shrinkage.
struct LengthReading {
    PrintAxis axis = PrintAxis::X;
    double nominal_mm = 0.0; ///< as drawn
    double measured_mm = 0.0;
    bool operator==(const LengthReading &) const = default;
};

/// What went wrong in a print.
enum class PrintTrouble { Jam, Warp, Delamination, UnderExtrusion, Overload, Warning, Stopped, Other };
inline constexpr PrintTrouble kPrintTroubles[] = {
    PrintTrouble::Jam,      PrintTrouble::Warp,    PrintTrouble::Delamination, PrintTrouble::UnderExtrusion,
    PrintTrouble::Overload, PrintTrouble::Warning, PrintTrouble::Stopped,      PrintTrouble::Other};
std::string_view troubleName(PrintTrouble trouble); ///< "jam", "warp", "drive overload" …
std::optional<PrintTrouble> troubleFrom(std::string_view name);

/// A print of a piece that failed; the piece keeps it whatever is printed afterwards.
struct PrintFailure {
    int plate = 0;
    PrintTrouble trouble = PrintTrouble::Other;
    std::string what;     ///< what was seen, and what was done
    bool reprint = false; ///< the piece is to be printed again, on a plate of its own
    std::string who;
    std::string when; ///< ISO 8601, UTC
    bool operator==(const PrintFailure &) const = default;
};

/// How the name of a picture ends that every program can show.
inline constexpr std::string_view kPhotoEndings[] = {"png", "jpg", "jpeg", "webp",
                                                     "bmp", "ppm", "tif",  "tiff"};
bool isPhotoName(std::string_view name);

/// A picture that belongs to a piece; its bytes are a raw file.
struct Photo {
    RawFileId file;
    std::string caption;
    std::string who;
    std::string when;
    bool operator==(const Photo &) const = default;
};

/// An unlikely reading that a person looked at and said is right.
struct ConfirmedReading {
    std::string field; ///< as fieldName()
    double value = 0.0;
    std::string who;
    std::string when;
    bool operator==(const ConfirmedReading &) const = default;
};

/// A load that rests on a piece while it is read from time to time.
struct LoadedRun {
    std::string loadedAt;        ///< ISO 8601, UTC
    std::vector<double> taken_s; ///< readings, in seconds after that
    std::string unloadedAt;      ///< empty: the load rests
    bool isOver = false;         ///< what was left was read, or the run was ended before
    bool operator==(const LoadedRun &) const = default;
};

/// What happened to a piece between plan and bench.
struct PieceLog {
    SizeReadings sizes;
    std::optional<double> mass_g;
    std::vector<LengthReading> lengths; ///< at most one an axis
    std::vector<PrintFailure> failures; ///< in order
    std::vector<Photo> photos;
    std::vector<ConfirmedReading> confirmed;
    std::vector<MeasuredWith> gauges; ///< each field at most once
    std::string breakLook;            ///< what the break looks like: name of a BreakLook; empty: nobody said
    std::optional<LoadedRun> run{};   ///< of a test that is read at set times over days
    std::string note;
    bool operator==(const PieceLog &) const = default;
};

/// The log as one JSON object without its note and photos, which are kept apart; "{}" where there is
/// nothing. docs/project_format.md.
std::string pieceLogText(const PieceLog &log);
/// Errors: BadInput, with the key.
Result<PieceLog> pieceLogFromText(std::string_view text);

} // namespace inchpeg
