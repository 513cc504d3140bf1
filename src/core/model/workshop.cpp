// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/model/workshop.h"

#include "core/base/json_fields.h"
#include "core/base/json_text.h"
#include "core/base/named.h"

#include <fmt/format.h>

#include <algorithm>
#include <set>

namespace inchpeg
{

namespace
{

constexpr std::pair<GaugeKind, std::string_view> kGaugeKinds[] = {
    {GaugeKind::Calliper, "calliper"}, {GaugeKind::Scale, "scale"}, {GaugeKind::Thermometer, "thermometer"}};

constexpr std::pair<RigKind, std::string_view> kKinds[] = {{RigKind::Frame, "frame"},
                                                           {RigKind::HandGauge, "hand gauge"},
                                                           {RigKind::Pendulum, "pendulum"},
                                                           {RigKind::TorqueGauge, "torque gauge"},
                                                           {RigKind::DeadWeights, "dead weights"},
                                                           {RigKind::Oven, "oven"}};

template <typename Io, typename Card>
void cardFields(Io &io, Card &card) requires std::is_same_v<std::remove_const_t<Card>, RigCard>
{
    const RigCard usual;
    io.field("name", card.name, usual.name);
    io.field("range", card.range, usual.range);
    io.field("resolution", card.resolution, usual.resolution);
    io.field("rate_Hz", card.rate_Hz, usual.rate_Hz);
    io.field("compliance_mm_per_N", card.compliance_mm_per_N, usual.compliance_mm_per_N);
    io.field("arm_m", card.arm_m, usual.arm_m);
    io.field("hammer_kg", card.hammer_kg, usual.hammer_kg);
    io.field("free_swing_deg", card.freeSwing_deg, usual.freeSwing_deg);
    io.field("probe_lag_s", card.probeLag_s, usual.probeLag_s);
}

template <typename Io, typename Card>
void cardFields(Io &io, Card &card) requires std::is_same_v<std::remove_const_t<Card>, GaugeCard>
{
    const GaugeCard usual;
    io.field("name", card.name, usual.name);
    io.field("range", card.range, usual.range);
    io.field("resolution", card.resolution, usual.resolution);
    io.field("uncertainty", card.uncertainty, usual.uncertainty);
    io.field("port", card.port, usual.port);
}

template <typename Io, typename Card>
void cardFields(Io &io, Card &card) requires std::is_same_v<std::remove_const_t<Card>, Calibration>
{
    const Calibration usual;
    io.field("on", card.on, usual.on);
    io.field("due", card.due, usual.due);
    io.field("factor", card.factor, usual.factor);
    io.field("along_points", card.alongPoints, usual.alongPoints);
    io.field("uncertainty_percent", card.uncertainty_percent, usual.uncertainty_percent);
    io.field("by", card.by, usual.by);
}

template <typename Io, typename Card>
void cardFields(Io &io, Card &card) requires std::is_same_v<std::remove_const_t<Card>, MaterialStatement>
{
    const MaterialStatement usual;
    io.field("about", card.about, usual.about);
    io.field("says", card.says, usual.says);
    io.field("source", card.source, usual.source);
    io.field("used", card.used, usual.used);
}

template <typename Io, typename Card>
void cardFields(Io &io, Card &card) requires std::is_same_v<std::remove_const_t<Card>, SheetValue>
{
    const SheetValue usual;
    io.field("property", card.property, usual.property);
    io.field("value", card.value, usual.value);
    io.field("unit", card.unit, usual.unit);
    io.field("standard", card.standard, usual.standard);
    io.field("load", card.load, usual.load);
    io.field("orientation", card.orientation, usual.orientation);
    io.field("annealed", card.annealed, usual.annealed);
}

template <typename Io, typename Card>
void cardFields(Io &io, Card &card) requires std::is_same_v<std::remove_const_t<Card>, PrinterCard>
{
    const PrinterCard usual;
    io.field("name", card.name, usual.name);
    io.field("bed_width_mm", card.bedWidth_mm, usual.bedWidth_mm);
    io.field("bed_depth_mm", card.bedDepth_mm, usual.bedDepth_mm);
    io.field("height_mm", card.height_mm, usual.height_mm);
    io.field("heated_chamber", card.heatedChamber, usual.heatedChamber);
    io.field("flow_mm3_per_s", card.flow_mm3_per_s, usual.flow_mm3_per_s);
    io.field("setup_min", card.setup_min, usual.setup_min);
}

template <typename Io, typename Card>
void cardFields(Io &io, Card &card) requires std::is_same_v<std::remove_const_t<Card>, SpoolCard>
{
    const SpoolCard usual;
    io.field("material", card.material, usual.material);
    io.field("density_g_per_cm3", card.density_g_per_cm3, usual.density_g_per_cm3);
    io.field("price_per_kg", card.price_per_kg, usual.price_per_kg);
    io.field("gross_g", card.gross_g, usual.gross_g);
    io.field("empty_g", card.empty_g, usual.empty_g);
    io.field("dry_C", card.dry_C, usual.dry_C);
    io.field("dry_h", card.dry_h, usual.dry_h);
    io.field("spool_limit_C", card.spoolLimit_C, usual.spoolLimit_C);
    io.field("polymer", card.polymer, usual.polymer);
    io.field("fill", card.fill, usual.fill);
    io.field("colour", card.colour, usual.colour);
    io.field("lot", card.lot, usual.lot);
    io.field("cautions", card.cautions, usual.cautions);
}

template <typename Io, typename Card>
void cardFields(Io &io, Card &card) requires std::is_same_v<std::remove_const_t<Card>, LabelStock>
{
    const LabelStock usual;
    io.field("name", card.name, usual.name);
    io.field("width_mm", card.width_mm, usual.width_mm);
    io.field("height_mm", card.height_mm, usual.height_mm);
    io.field("columns", card.columns, usual.columns);
    io.field("rows", card.rows, usual.rows);
    io.field("left_mm", card.left_mm, usual.left_mm);
    io.field("top_mm", card.top_mm, usual.top_mm);
    io.field("pitch_x_mm", card.pitchX_mm, usual.pitchX_mm);
    io.field("pitch_y_mm", card.pitchY_mm, usual.pitchY_mm);
}

template <typename Io, typename W>
void workshopFields(Io &io, W &workshop)
{
    const Workshop usual;
    io.field("money_unit", workshop.moneyUnit, usual.moneyUnit);
    io.field("printer_rate_per_h", workshop.printerRate_per_h, usual.printerRate_per_h);
    io.field("lab_prefix", workshop.labPrefix, usual.labPrefix);
}

template <typename Card>
OrderedJson cardJson(const Card &card)
{
    OrderedJson json = OrderedJson::object();
    FieldWriter writer(json);
    cardFields(writer, card);
    return json;
}

template <typename Card>
Card cardFrom(const OrderedJson &json)
{
    Card card;
    FieldReader reader(json);
    cardFields(reader, card);
    return card;
}

OrderedJson calibrationJson(const Calibration &calibration)
{
    OrderedJson json = cardJson(calibration);
    for (const CalibrationPoint &point : calibration.points)
        json["points"].push_back({point.applied, point.shown});
    return json;
}

Calibration calibrationFrom(const OrderedJson &json)
{
    Calibration calibration = cardFrom<Calibration>(json);
    for (const OrderedJson &point : listIn(json, "points"))
        calibration.points.push_back({point.at(0).get<double>(), point.at(1).get<double>()});
    return calibration;
}

template <typename Card>
void putCards(OrderedJson &json, const char *key, const std::vector<Card> &cards)
{
    for (const Card &card : cards)
        json[key].push_back(cardJson(card));
}

template <typename Card>
std::vector<Card> cardsIn(const OrderedJson &json, const char *key)
{
    std::vector<Card> cards;
    for (const OrderedJson &card : listIn(json, key))
        cards.push_back(cardFrom<Card>(card));
    return cards;
}

/// Under "calibrations", for rigs and gauges alike.
void putCalibrations(OrderedJson &json, const std::vector<Calibration> &calibrations)
{
    for (const Calibration &calibration : calibrations)
        json["calibrations"].push_back(calibrationJson(calibration));
}

std::vector<Calibration> calibrationsIn(const OrderedJson &json)
{
    std::vector<Calibration> calibrations;
    for (const OrderedJson &one : listIn(json, "calibrations"))
        calibrations.push_back(calibrationFrom(one));
    return calibrations;
}

Status checkCalibrations(const std::string &name, const std::vector<Calibration> &calibrations)
{
    for (const Calibration &calibration : calibrations) {
        if (const Status status = checkCalibration(calibration); !status)
            return invalidArgument(fmt::format("{}: {}", name, status.error().message));
    }
    return ok();
}

template <typename Card>
Status checkNames(const std::vector<Card> &cards, std::string Card::*name, const char *what)
{
    std::set<std::string> known;
    for (const Card &card : cards) {
        if ((card.*name).empty())
            return invalidArgument(fmt::format("a {} needs a name", what));
        if (!known.insert(card.*name).second)
            return invalidArgument(fmt::format("there are two {}s called \"{}\"", what, card.*name));
    }
    return ok();
}

bool isAbove(double value)
{
    return value > 0.0 && std::isfinite(value);
}

template <typename Card>
UsedGauge usedOn(const Card &card, const std::string &day)
{
    UsedGauge used{card.name, day, {}, 0.0};
    if (const Calibration *calibration = calibrationOn(card.calibrations, day))
        used.calibration = *calibration;
    return used;
}

} // namespace

std::string_view rigKindName(RigKind kind)
{
    return nameIn(kKinds, kind);
}

std::optional<RigKind> rigKindFrom(std::string_view name)
{
    return valueIn(kKinds, name);
}

std::string_view gaugeKindName(GaugeKind kind)
{
    return nameIn(kGaugeKinds, kind);
}

std::optional<GaugeKind> gaugeKindFrom(std::string_view name)
{
    return valueIn(kGaugeKinds, name);
}

std::vector<LabelStock> usualLabelStock()
{
    // Sizes that many makers of label sheets share; A4, 210 × 297 mm.
    return {{"65 labels of 38 × 21 mm", 38.1, 21.2, 5, 13, 4.75, 10.7, 40.6, 21.2},
            {"48 labels of 46 × 21 mm", 45.7, 21.2, 4, 12, 9.85, 21.3, 48.2, 21.2},
            {"24 labels of 64 × 34 mm", 63.5, 33.9, 3, 8, 7.2, 12.9, 66.0, 33.9},
            {"21 labels of 64 × 38 mm", 63.5, 38.1, 3, 7, 7.2, 15.1, 66.0, 38.1},
            {"40 labels of 52 × 30 mm", 52.5, 29.7, 4, 10, 0.0, 0.0, 52.5, 29.7}};
}

Workshop usualWorkshop()
{
    Workshop workshop;
    const auto rig = [](const char *name, RigKind kind, double range, double resolution, double rate_Hz) {
        RigCard card;
        card.name = name;
        card.kind = kind;
        card.range = range;
        card.resolution = resolution;
        card.rate_Hz = rate_Hz;
        return card;
    };
    workshop.rigs = {rig("test frame 2 kN", RigKind::Frame, 2000.0, 0.2, 20.0),
                     rig("hand gauge 500 N", RigKind::HandGauge, 500.0, 0.1, 10.0),
                     rig("pendulum 2 J", RigKind::Pendulum, 2.0, 0.005, 0.0),
                     rig("torque gauge 10 N·m", RigKind::TorqueGauge, 10.0, 0.01, 10.0),
                     rig("dead weights 10 kg", RigKind::DeadWeights, 10.0, 0.05, 0.0),
                     rig("oven", RigKind::Oven, 0.0, 0.0, 1.0)};
    // Expanded uncertainties of usual workshop gauges (common practice).
    workshop.gauges = {{"callipers", GaugeKind::Calliper, 150.0, 0.01, 0.03, {}, {}},
                       {"scale 200 g", GaugeKind::Scale, 200.0, 0.01, 0.02, {}, {}}};
    workshop.printers = {{"printer 1", 220.0, 220.0, 220.0, false, 8.0, 10.0}};
    return workshop;
}

std::vector<std::string> disagreements(const SpoolCard &spool)
{
    std::vector<std::string> sentences;
    std::set<std::string> told;
    for (const MaterialStatement &one : spool.statements) {
        if (!told.insert(one.about).second)
            continue;
        std::string sentence = one.about + ": ";
        std::string used;
        std::set<std::string> said;
        bool isFirst = true;
        for (const MaterialStatement &other : spool.statements) {
            if (other.about != one.about)
                continue;
            said.insert(other.says);
            sentence += fmt::format("{}{} says {}", isFirst ? "" : ", ", other.source, other.says);
            isFirst = false;
            if (other.used)
                used = other.source;
        }
        if (said.size() > 1)
            sentences.push_back(sentence + (used.empty() ? "; which was used is not said."
                                                         : fmt::format("; used as on the {}.", used)));
    }
    return sentences;
}

UsedGauge usedGauge(const RigCard &rig, const std::string &day)
{
    UsedGauge used = usedOn(rig, day);
    used.compliance_mm_per_N = rig.compliance_mm_per_N;
    return used;
}

UsedGauge usedGauge(const GaugeCard &gauge, const std::string &day)
{
    return usedOn(gauge, day);
}

const GaugeCard *findGauge(const Workshop &workshop, std::string_view name)
{
    const auto found = std::find_if(workshop.gauges.begin(), workshop.gauges.end(),
                                    [name](const GaugeCard &gauge) { return gauge.name == name; });
    return found == workshop.gauges.end() ? nullptr : &*found;
}

const RigCard *findRig(const Workshop &workshop, std::string_view name)
{
    const auto found = std::find_if(workshop.rigs.begin(), workshop.rigs.end(),
                                    [name](const RigCard &rig) { return rig.name == name; });
    return found == workshop.rigs.end() ? nullptr : &*found;
}

const PrinterCard *findPrinter(const Workshop &workshop, std::string_view name)
{
    const auto found = std::find_if(workshop.printers.begin(), workshop.printers.end(),
                                    [name](const PrinterCard &printer) { return printer.name == name; });
    if (found != workshop.printers.end())
        return &*found;
    return workshop.printers.empty() ? nullptr : &workshop.printers.front();
}

const SpoolCard *findSpool(const Workshop &workshop, std::string_view material)
{
    const auto found =
        std::find_if(workshop.spools.begin(), workshop.spools.end(),
                     [material](const SpoolCard &spool) { return spool.material == material; });
    return found == workshop.spools.end() ? nullptr : &*found;
}

Status checkWorkshop(const Workshop &workshop)
{
    Status status = checkNames(workshop.rigs, &RigCard::name, "rig");
    if (status)
        status = checkNames(workshop.gauges, &GaugeCard::name, "gauge");
    if (status)
        status = checkNames(workshop.printers, &PrinterCard::name, "printer");
    if (status)
        status = checkNames(workshop.spools, &SpoolCard::material, "spool");
    if (!status)
        return status;
    for (const GaugeCard &gauge : workshop.gauges) {
        if (!(gauge.resolution >= 0.0) || !(gauge.uncertainty >= 0.0))
            return invalidArgument(
                fmt::format("{}: resolution and uncertainty must not be below zero", gauge.name));
        if (const Status good = checkCalibrations(gauge.name, gauge.calibrations); !good)
            return good;
    }
    for (const RigCard &rig : workshop.rigs) {
        if (!(rig.compliance_mm_per_N >= 0.0))
            return invalidArgument(fmt::format("{}: its compliance must not be below zero", rig.name));
        if (const Status good = checkCalibrations(rig.name, rig.calibrations); !good)
            return good;
        if (rig.kind != RigKind::Oven && (!isAbove(rig.range) || !(rig.resolution >= 0.0)))
            return invalidArgument(fmt::format("{}: its range must be above zero", rig.name));
    }
    for (const PrinterCard &printer : workshop.printers) {
        if (!isAbove(printer.bedWidth_mm) || !isAbove(printer.bedDepth_mm) || !isAbove(printer.height_mm) ||
            !isAbove(printer.flow_mm3_per_s) || !(printer.setup_min >= 0.0))
            return invalidArgument(fmt::format("{}: bed, height and flow must be above zero", printer.name));
    }
    for (const SpoolCard &spool : workshop.spools) {
        if (!(spool.price_per_kg >= 0.0) || (spool.density_g_per_cm3 && !isAbove(*spool.density_g_per_cm3)))
            return invalidArgument(fmt::format("{}: density and price must be above zero", spool.material));
        if (spool.gross_g && spool.empty_g && *spool.gross_g < *spool.empty_g)
            return invalidArgument(fmt::format("{}: the spool weighs {:g} g in all and {:g} g empty; is one "
                                               "of them the other?",
                                               spool.material, *spool.gross_g, *spool.empty_g));
    }
    bool works = false;
    for (const WorkingDay &day : workshop.hours) {
        if (day.from_min < 0 || day.to_min > 24 * 60 || day.to_min < day.from_min)
            return invalidArgument("working hours must begin before they end, within one day");
        works = works || day.to_min > day.from_min;
    }
    if (!works)
        return invalidArgument("there must be one working day in the week");
    const LabelStock &labels = workshop.labels;
    if (labels.columns < 1 || labels.rows < 1 || !isAbove(labels.width_mm) || !isAbove(labels.height_mm))
        return invalidArgument("labels need a size, and at least one column and row");
    return ok();
}

std::string usedGaugeText(const UsedGauge &used)
{
    OrderedJson json = {{"name", used.name}, {"used_at", used.usedAt}};
    if (used.calibration)
        json["calibration"] = calibrationJson(*used.calibration);
    if (used.compliance_mm_per_N > 0.0)
        json["compliance_mm_per_N"] = used.compliance_mm_per_N;
    return jsonText(json);
}

Result<UsedGauge> usedGaugeFromText(std::string_view text)
{
    try {
        const OrderedJson json = parsedJson(text);
        UsedGauge used;
        used.name = json.at("name").get<std::string>();
        used.usedAt = json.at("used_at").get<std::string>();
        if (json.contains("calibration")) {
            used.calibration = calibrationFrom(json.at("calibration"));
            if (const Status status = checkCalibration(*used.calibration); !status)
                return badInput(status.error().message);
        }
        FieldReader(json).field("compliance_mm_per_N", used.compliance_mm_per_N, 0.0);
        return used;
    } catch (const std::exception &failure) {
        return badInput(fmt::format("is no description of a gauge: {}", jsonTrouble(failure)));
    }
}

std::string workshopText(const Workshop &workshop)
{
    OrderedJson json = OrderedJson::object();
    FieldWriter writer(json);
    workshopFields(writer, workshop);
    if (!workshop.library.empty())
        json["library"] = workshop.library;
    json["rigs"] = OrderedJson::array();
    for (const RigCard &rig : workshop.rigs) {
        json["rigs"].push_back(cardJson(rig));
        json["rigs"].back()["kind"] = rigKindName(rig.kind);
        putCalibrations(json["rigs"].back(), rig.calibrations);
    }
    for (const GaugeCard &gauge : workshop.gauges) {
        json["gauges"].push_back(cardJson(gauge));
        json["gauges"].back()["kind"] = gaugeKindName(gauge.kind);
        putCalibrations(json["gauges"].back(), gauge.calibrations);
    }
    json["printers"] = OrderedJson::array();
    for (const PrinterCard &printer : workshop.printers)
        json["printers"].push_back(cardJson(printer));
    json["spools"] = OrderedJson::array();
    for (const SpoolCard &spool : workshop.spools) {
        json["spools"].push_back(cardJson(spool));
        putCards(json["spools"].back(), "statements", spool.statements);
        putCards(json["spools"].back(), "sheet", spool.sheet);
    }
    json["hours"] = OrderedJson::array();
    for (const WorkingDay &day : workshop.hours)
        json["hours"].push_back({day.from_min, day.to_min});
    json["labels"] = cardJson(workshop.labels);
    return jsonText(json);
}

Result<Workshop> workshopFromText(std::string_view text)
{
    try {
        const OrderedJson json = parsedJson(text);
        Workshop workshop;
        FieldReader reader(json);
        workshopFields(reader, workshop);
        workshop.library = json.value("library", std::vector<std::string>());
        for (const OrderedJson &card : json.value("rigs", OrderedJson::array())) {
            workshop.rigs.push_back(cardFrom<RigCard>(card));
            workshop.rigs.back().kind = named(card.at("kind"), "kind", rigKindFrom);
            workshop.rigs.back().calibrations = calibrationsIn(card);
        }
        for (const OrderedJson &card : listIn(json, "gauges")) {
            workshop.gauges.push_back(cardFrom<GaugeCard>(card));
            workshop.gauges.back().kind = named(card.at("kind"), "kind", gaugeKindFrom);
            workshop.gauges.back().calibrations = calibrationsIn(card);
        }
        for (const OrderedJson &card : json.value("printers", OrderedJson::array()))
            workshop.printers.push_back(cardFrom<PrinterCard>(card));
        for (const OrderedJson &card : listIn(json, "spools")) {
            workshop.spools.push_back(cardFrom<SpoolCard>(card));
            workshop.spools.back().statements = cardsIn<MaterialStatement>(card, "statements");
            workshop.spools.back().sheet = cardsIn<SheetValue>(card, "sheet");
        }
        if (const auto hours = json.find("hours"); hours != json.end()) {
            if (hours->size() != workshop.hours.size())
                throw std::invalid_argument("\"hours\": seven days are wanted");
            for (std::size_t i = 0; i < workshop.hours.size(); ++i)
                workshop.hours[i] = {hours->at(i).at(0).get<int>(), hours->at(i).at(1).get<int>()};
        }
        if (json.contains("labels"))
            workshop.labels = cardFrom<LabelStock>(json.at("labels"));
        if (const Status status = checkWorkshop(workshop); !status)
            return badInput(status.error().message);
        return workshop;
    } catch (const std::exception &failure) {
        return badInput(fmt::format("is no description of a workshop: {}", jsonTrouble(failure)));
    }
}

namespace
{

template <typename Card>
void takeCardsOf(std::vector<Card> &cards, const std::vector<Card> &from, std::string Card::*name)
{
    for (const Card &card : from) {
        const auto same = std::find_if(cards.begin(), cards.end(),
                                       [&](const Card &one) { return one.*name == card.*name; });
        if (same != cards.end())
            *same = card;
        else
            cards.push_back(card);
    }
}

} // namespace

void takeCards(Workshop &workshop, const Workshop &from)
{
    const Workshop plain;
    takeCardsOf(workshop.rigs, from.rigs, &RigCard::name);
    takeCardsOf(workshop.gauges, from.gauges, &GaugeCard::name);
    takeCardsOf(workshop.printers, from.printers, &PrinterCard::name);
    takeCardsOf(workshop.spools, from.spools, &SpoolCard::material);
    const auto take = [&](auto Workshop::*part) {
        if (!(from.*part == plain.*part))
            workshop.*part = from.*part;
    };
    take(&Workshop::hours);
    take(&Workshop::moneyUnit);
    take(&Workshop::printerRate_per_h);
    take(&Workshop::labPrefix);
    take(&Workshop::labels);
}

} // namespace inchpeg
