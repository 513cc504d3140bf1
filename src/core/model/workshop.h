// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "core/base/result.h"
#include "core/model/calibration.h"

#include <array>
#include <optional>
#include <string>
#include <string_view>
#include <vector>

namespace inchpeg
{

/// What the plans of a project share: rigs, printers, spools, hours, prices.

enum class RigKind { Frame, HandGauge, Pendulum, TorqueGauge, DeadWeights, Oven };
std::string_view rigKindName(RigKind kind); ///< "frame", "hand gauge", "pendulum" …
std::optional<RigKind> rigKindFrom(std::string_view name);

struct RigCard {
    std::string name;
    RigKind kind = RigKind::Frame;
    double range = 0.0;      ///< N; for a pendulum J, for a torque gauge N·m, for dead weights kg in all
    double resolution = 0.0; ///< in the same unit; for dead weights the smallest step
    double rate_Hz = 10.0;   ///< readings a second
    std::vector<Calibration> calibrations{};
    double compliance_mm_per_N = 0.0;      ///< of a frame, measured with a stiff dummy
    std::optional<double> arm_m{};         ///< of a pendulum: pivot to centre of mass
    std::optional<double> hammer_kg{};     ///< of a pendulum
    std::optional<double> freeSwing_deg{}; ///< of a pendulum, without a specimen
    std::optional<double> probeLag_s{};    ///< of an oven's thermometer
    bool operator==(const RigCard &) const = default;
};

/// What pieces are measured with before the test.
enum class GaugeKind { Calliper, Scale, Thermometer };
std::string_view gaugeKindName(GaugeKind kind); ///< "calliper", "scale", "thermometer"
std::optional<GaugeKind> gaugeKindFrom(std::string_view name);

struct GaugeCard {
    std::string name;
    GaugeKind kind = GaugeKind::Calliper;
    double range = 0.0;
    double resolution = 0.01;
    double uncertainty = 0.0; ///< expanded (k = 2), in the gauge's unit
    std::string port;         ///< serial device that it sends its readings on; empty: it is read by eye
    std::vector<Calibration> calibrations;
    bool operator==(const GaugeCard &) const = default;
};

/// Something that a maker says of a material. Spool, box and sheet may disagree: all are kept.
struct MaterialStatement {
    std::string about;  ///< "nozzle", "bed", "drying" …
    std::string says;   ///< "230–250 °C"
    std::string source; ///< "spool", "box", "sheet" …
    bool used = false;  ///< that is what was printed with
    bool operator==(const MaterialStatement &) const = default;
};

/// A value of a data sheet with everything that decides whether it may be compared.
struct SheetValue {
    std::string property;
    double value = 0.0;
    std::string unit;
    std::string standard;    ///< "ISO 527"
    std::string load;        ///< "1.80 MPa", where there is one
    std::string orientation; ///< "flat", "standing", or empty
    bool annealed = false;
    bool operator==(const SheetValue &) const = default;
};

struct PrinterCard {
    std::string name;
    double bedWidth_mm = 220.0;
    double bedDepth_mm = 220.0;
    double height_mm = 220.0;
    bool heatedChamber = false;
    double flow_mm3_per_s = 8.0; ///< that it keeps up on average
    double setup_min = 10.0;     ///< to clear and start a plate
    bool operator==(const PrinterCard &) const = default;
};

struct SpoolCard {
    std::string material;                    ///< as on the rails; names polymer and lot
    std::optional<double> density_g_per_cm3; ///< empty: usual for the polymer
    double price_per_kg = 25.0;
    std::optional<double> gross_g; ///< weighed with its spool
    std::optional<double> empty_g; ///< the empty spool
    std::optional<double> dry_C;   ///< empty: usual for the polymer
    std::optional<double> dry_h;
    std::optional<double> spoolLimit_C; ///< that the spool itself stands
    std::string polymer{};              ///< generic name, of polymers()
    std::string fill{};                 ///< "carbon fibre, 15 %"
    std::string colour{};
    std::string lot{};
    std::vector<MaterialStatement> statements{};
    std::vector<SheetValue> sheet{};
    std::string cautions{};
    bool operator==(const SpoolCard &) const = default;
};

/// A day's working hours in minutes after midnight; equal: a day off.
struct WorkingDay {
    int from_min = 9 * 60;
    int to_min = 17 * 60;
    bool operator==(const WorkingDay &) const = default;
};

struct LabelStock {
    std::string name;
    double width_mm = 38.1;
    double height_mm = 21.2;
    int columns = 5;
    int rows = 13;
    double left_mm = 4.75; ///< of the first label on an A4 sheet
    double top_mm = 10.7;
    double pitchX_mm = 40.6;
    double pitchY_mm = 21.2;
    bool operator==(const LabelStock &) const = default;
};
/// Common sizes for an A4 sheet.
std::vector<LabelStock> usualLabelStock();

struct Workshop {
    std::vector<RigCard> rigs;
    std::vector<GaugeCard> gauges;
    std::vector<PrinterCard> printers;
    std::vector<SpoolCard> spools;
    std::array<WorkingDay, 7> hours{WorkingDay{}, WorkingDay{}, WorkingDay{}, WorkingDay{},
                                    WorkingDay{}, {0, 0},       {0, 0}}; ///< Monday first
    std::string moneyUnit{"EUR"};
    double printerRate_per_h = 0.5; ///< wear and power
    std::string labPrefix;          ///< of piece codes; three symbols of codeSymbols()
    LabelStock labels = usualLabelStock().front();
    std::vector<std::string>
        library{}; ///< paths of other projects whose results count among one's own averages
    bool operator==(const Workshop &) const = default;
};

/// What a new project starts with: one of each usual rig, one printer.
Workshop usualWorkshop();

/// Where two sources say different things about the same: "nozzle: spool says 230–250 °C, sheet says
/// 220–240 °C; printed as on the spool." One sentence for each.
std::vector<std::string> disagreements(const SpoolCard &spool);

/// What a rig is on that day, to be kept with a record.
UsedGauge usedGauge(const RigCard &rig, const std::string &day);
/// What callipers or a scale are on that day, to be kept with readings.
UsedGauge usedGauge(const GaugeCard &gauge, const std::string &day);

const GaugeCard *findGauge(const Workshop &workshop, std::string_view name);
const RigCard *findRig(const Workshop &workshop, std::string_view name);
/// The named printer, the first where the name is empty or unknown; nothing where there is none.
const PrinterCard *findPrinter(const Workshop &workshop, std::string_view name);
const SpoolCard *findSpool(const Workshop &workshop, std::string_view material);

/// Errors: InvalidArgument for a card that cannot be: no name or one used twice, sizes not positive, hours
/// that end before they begin.
Status checkWorkshop(const Workshop &workshop);

/// Takes the cards of another workshop in: in place of those of the same name, or beside the others; and what
/// it says otherwise than a new workshop does (hours, money, labels).
void takeCards(Workshop &workshop, const Workshop &from);

/// As one JSON object, kept with a record.
std::string usedGaugeText(const UsedGauge &used);
/// Errors: BadInput.
Result<UsedGauge> usedGaugeFromText(std::string_view text);

/// As one JSON object, kept as the project's setting "workshop": docs/plan_format.md.
std::string workshopText(const Workshop &workshop);
/// Errors: BadInput.
Result<Workshop> workshopFromText(std::string_view text);

} // namespace inchpeg
