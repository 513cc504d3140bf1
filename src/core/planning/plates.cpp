// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/planning/plates.h"

#include "core/base/random.h"
#include "core/model/print_state.h"
#include "core/model/study_edit.h"
#include "core/planning/print_estimate.h"

#include <fmt/format.h>

#include <algorithm>
#include <map>
#include <set>

namespace inchpeg
{

namespace
{

constexpr double kEdge_mm = 5.0; ///< kept free around the bed

/// What is known of a piece while it is laid out.
struct Item {
    PieceId piece;
    std::size_t condition = 0; ///< index in the study
    std::size_t kind = 0;      ///< index of condition and test: what a block holds one of
    Footprint footprint;
    PieceEstimate estimate;
    int round = 1;
};

/// Fills a plate row by row, from the front left corner.
class PlateFiller
{
public:
    PlateFiller(double width_mm, double depth_mm, double gap_mm)
        : m_width(width_mm), m_depth(depth_mm), m_gap(gap_mm)
    {
    }

    /// The corner where a footprint goes, or nothing where the plate is full.
    std::optional<PlanePoint> place(const Footprint &footprint)
    {
        if (m_x > kEdge_mm && m_x + footprint.width_mm > m_width - kEdge_mm) {
            m_y += m_rowDepth + m_gap;
            m_x = kEdge_mm;
            m_rowDepth = 0.0;
        }
        if (m_x + footprint.width_mm > m_width - kEdge_mm || m_y + footprint.depth_mm > m_depth - kEdge_mm)
            return std::nullopt;
        const PlanePoint corner{m_x, m_y};
        m_x += footprint.width_mm + m_gap;
        m_rowDepth = std::max(m_rowDepth, footprint.depth_mm);
        return corner;
    }

private:
    double m_width, m_depth, m_gap;
    double m_x = kEdge_mm;
    double m_y = kEdge_mm;
    double m_rowDepth = 0.0;
};

class LayoutMaker
{
public:
    LayoutMaker(const Study &study, const Workshop &workshop)
        : m_study(study), m_workshop(workshop), m_tests(plannedTests(study)), m_random(study.plan.print.seed)
    {
        const PrinterCard *printer = findPrinter(workshop, study.plan.print.printer);
        m_printer = printer != nullptr ? *printer : PrinterCard{};
        m_layout.bedWidth_mm = m_printer.bedWidth_mm;
        m_layout.bedDepth_mm = m_printer.bedDepth_mm;
    }

    PlateLayout make()
    {
        takePrinted();
        collectItems();
        dealToRounds();
        for (int round = 1; round <= m_study.plan.print.rounds; ++round)
            layOutRound(round);
        orderTests();
        return std::move(m_layout);
    }

private:
    Item itemOf(const Piece &piece)
    {
        const auto condition = std::find_if(m_study.conditions.begin(), m_study.conditions.end(),
                                            [&](const Condition &one) { return one.id == piece.condition; });
        require(condition != m_study.conditions.end(), "a piece without a condition");
        const PlannedTest &test = testOfPiece(m_tests, piece);
        const auto index = static_cast<std::size_t>(condition - m_study.conditions.begin());
        const std::size_t kind = index * m_tests.size() + static_cast<std::size_t>(&test - m_tests.data());
        auto estimate = m_estimates.find(kind);
        if (estimate == m_estimates.end())
            estimate = m_estimates.emplace(kind, estimatePiece(m_study, test, *condition, m_workshop)).first;
        return {piece.id, index, kind, footprintOf(test.shape, condition->orientation), estimate->second, 1};
    }

    void takePrinted()
    {
        for (const PrintedPlate &printed : m_study.plan.print.printed) {
            Plate plate;
            plate.number = printed.number;
            plate.round = printed.round;
            plate.printedAt = printed.printedAt;
            for (const PlacedPiece &placed : printed.pieces) {
                const Piece *piece = findPiece(m_study, placed.piece);
                if (piece == nullptr)
                    continue;
                const Item item = itemOf(*piece);
                plate.settings = settingsText(item.condition);
                plate.pieces.push_back(placed);
                plate.grams += item.estimate.grams;
                plate.minutes += item.estimate.minutes;
                m_placed.insert(placed.piece);
                if (hasFailedOn(*piece, printed.number)) {
                    plate.pieces.back().testPlace = 0; // it will not be tested, or as another print
                    if (piece->log.failures.back().plate == printed.number &&
                        piece->log.failures.back().reprint)
                        m_again.insert(placed.piece);
                    continue;
                }
                m_again.erase(placed.piece);
                m_kindOf[placed.piece] = item.kind;
                m_roundOf[placed.piece] = printed.round;
            }
            m_layout.plates.push_back(std::move(plate));
        }
    }

    void collectItems()
    {
        for (const Piece &piece : m_study.pieces) {
            const bool again = m_again.contains(piece.id);
            if (!again && (m_placed.contains(piece.id) || !isUntouched(piece)))
                continue; // what holds data was printed before there was a plan
            const Item item = itemOf(piece);
            const Footprint &foot = item.footprint;
            if (foot.width_mm > m_printer.bedWidth_mm - 2.0 * kEdge_mm ||
                foot.depth_mm > m_printer.bedDepth_mm - 2.0 * kEdge_mm ||
                foot.height_mm > m_printer.height_mm)
                m_layout.unplaced.push_back(piece.id);
            else
                m_items.push_back(item);
        }
    }

    /// Each kind's pieces, in random order, go to the rounds in turn; which round begins is drawn as well, so
    /// that surplus pieces do not pile up in the first.
    void dealToRounds()
    {
        const auto rounds = static_cast<std::size_t>(std::max(1, m_study.plan.print.rounds));
        std::map<std::size_t, std::vector<Item *>> byKind;
        for (Item &item : m_items)
            byKind[item.kind].push_back(&item);
        std::map<std::size_t, std::vector<int>> printedOf;
        for (const auto &[piece, kind] : m_kindOf) {
            std::vector<int> &counts = printedOf.try_emplace(kind, rounds, 0).first->second;
            ++counts[std::min(rounds, static_cast<std::size_t>(std::max(1, m_roundOf[piece]))) - 1];
        }
        for (auto &[kind, items] : byKind) {
            m_random.shuffle(items);
            std::vector<int> counts = printedOf.try_emplace(kind, rounds, 0).first->second;
            std::vector<std::size_t> order(rounds);
            for (std::size_t i = 0; i < rounds; ++i)
                order[i] = i;
            m_random.shuffle(order);
            for (Item *item : items) {
                const auto emptiest =
                    *std::min_element(order.begin(), order.end(),
                                      [&](std::size_t a, std::size_t b) { return counts[a] < counts[b]; });
                item->round = static_cast<int>(emptiest) + 1;
                ++counts[emptiest];
            }
        }
    }

    /// "250 °C", "heated", or with several such factors "250 °C · auxiliary fan 0 %".
    [[nodiscard]] std::string settingsText(std::size_t index) const
    {
        const Condition &condition = m_study.conditions[index];
        const auto isPerPlate = [](const Factor &factor) { return factor.changedPer == ChangedPer::Plate; };
        const auto several = std::count_if(m_study.factors.begin(), m_study.factors.end(), isPerPlate) > 1;
        std::string text;
        for (std::size_t f = 0; f < m_study.factors.size(); ++f) {
            const Factor &factor = m_study.factors[f];
            if (!isPerPlate(factor))
                continue;
            const std::string level = levelText(factor, condition.levels[f]);
            const bool speaks = !several || (!factor.unit.empty() && factor.unit != "%");
            text += (text.empty() ? "" : " · ") + (speaks ? level : factor.name + " " + level);
        }
        return text;
    }

    /// Conditions with the same text may share a plate.
    [[nodiscard]] std::string plateKey(std::size_t condition) const
    {
        return settingsText(condition) + "\n" + m_study.conditions[condition].material;
    }

    /// One of each kind after the other, each time in a new order.
    std::vector<Item> inBlocks(std::vector<Item> items)
    {
        std::map<std::size_t, std::vector<Item>> byKind;
        for (const Item &item : items)
            byKind[item.kind].push_back(item);
        std::vector<std::size_t> kinds;
        for (auto &[kind, list] : byKind) {
            m_random.shuffle(list);
            kinds.push_back(kind);
        }
        std::vector<Item> ordered;
        while (ordered.size() < items.size()) {
            m_random.shuffle(kinds);
            for (const std::size_t kind : kinds) {
                std::vector<Item> &list = byKind[kind];
                if (list.empty())
                    continue;
                ordered.push_back(list.back());
                list.pop_back();
            }
        }
        return ordered;
    }

    /// The pieces of a plate as a group in the middle of the bed, where printers print best.
    void centre(Plate &plate)
    {
        double right = 0.0;
        double back = 0.0;
        for (const PlacedPiece &placed : plate.pieces) {
            right = std::max(right, placed.x_mm + placed.width_mm);
            back = std::max(back, placed.y_mm + placed.depth_mm);
        }
        const double dx = 0.5 * (m_printer.bedWidth_mm - kEdge_mm - right);
        const double dy = 0.5 * (m_printer.bedDepth_mm - kEdge_mm - back);
        for (PlacedPiece &placed : plate.pieces) {
            placed.x_mm += dx;
            placed.y_mm += dy;
        }
    }

    void layOutRound(int round)
    {
        std::map<std::string, std::vector<Item>> byPlateKey;
        for (const Item &item : m_items) {
            if (item.round == round)
                byPlateKey[plateKey(item.condition)].push_back(item);
        }
        std::vector<std::string> keys;
        for (const auto &entry : byPlateKey)
            keys.push_back(entry.first);
        m_random.shuffle(keys);
        for (const std::string &key : keys)
            fillPlates(round, inBlocks(byPlateKey[key]));
    }

    void fillPlates(int round, const std::vector<Item> &items)
    {
        const std::size_t first = m_layout.plates.size();
        std::optional<PlateFiller> filler;
        for (const Item &item : items) {
            std::optional<PlanePoint> corner = filler ? filler->place(item.footprint) : std::nullopt;
            if (!corner) {
                filler.emplace(m_printer.bedWidth_mm, m_printer.bedDepth_mm, m_study.plan.print.gap_mm);
                corner = filler->place(item.footprint);
                require(corner.has_value(), "a piece that fits the bed fits an empty plate");
                Plate plate;
                plate.number = m_layout.plates.empty() ? 1 : m_layout.plates.back().number + 1;
                plate.round = round;
                plate.settings = settingsText(item.condition);
                plate.minutes = m_printer.setup_min;
                m_layout.plates.push_back(std::move(plate));
            }
            Plate &plate = m_layout.plates.back();
            plate.pieces.push_back({item.piece, corner->x_mm, corner->y_mm, item.footprint.width_mm,
                                    item.footprint.depth_mm, 0});
            plate.grams += item.estimate.grams;
            plate.minutes += item.estimate.minutes;
        }
        for (std::size_t i = first; i < m_layout.plates.size(); ++i)
            centre(m_layout.plates[i]);
    }

    /// Printed pieces keep their places in the order of testing; the others take what is free.
    void orderTests()
    {
        std::vector<PieceId> drawn;
        for (int round = 1; round <= m_study.plan.print.rounds; ++round) {
            std::vector<Item> ofRound;
            std::copy_if(m_items.begin(), m_items.end(), std::back_inserter(ofRound),
                         [round](const Item &item) { return item.round == round; });
            for (const Item &item : inBlocks(std::move(ofRound)))
                drawn.push_back(item.piece);
        }
        std::map<int, PieceId> fixed;
        for (const Plate &plate : m_layout.plates) {
            for (const PlacedPiece &placed : plate.pieces) {
                if (placed.testPlace > 0)
                    fixed[placed.testPlace] = placed.piece;
            }
        }
        std::map<PieceId, int> places;
        int place = 1;
        for (const PieceId piece : drawn) {
            while (fixed.contains(place))
                ++place;
            fixed[place] = piece;
            places[piece] = place;
        }
        for (Plate &plate : m_layout.plates) {
            for (PlacedPiece &placed : plate.pieces) {
                if (const auto found = places.find(placed.piece); found != places.end())
                    placed.testPlace = found->second;
            }
        }
        for (const auto &entry : fixed)
            m_layout.testOrder.push_back(entry.second);
    }

    const Study &m_study;
    const Workshop &m_workshop;
    std::vector<PlannedTest> m_tests;
    Random m_random;
    PrinterCard m_printer;
    PlateLayout m_layout;
    std::vector<Item> m_items;
    std::set<PieceId> m_placed;
    std::set<PieceId> m_again; ///< failed, and to be printed once more
    std::map<PieceId, std::size_t> m_kindOf;
    std::map<PieceId, int> m_roundOf;
    std::map<std::size_t, PieceEstimate> m_estimates;
};

} // namespace

Footprint footprintOf(const SpecimenShape &shape, Orientation orientation)
{
    const bool round = isRound(shape);
    const double across = std::max(shape.width_mm, shape.endWidth_mm);
    if (shape.family == ShapeFamily::Core)
        return {across, across, shape.thickness_mm};
    if (orientation == Orientation::Standing)
        return {across, round ? across : shape.thickness_mm, shape.length_mm};
    return {shape.length_mm, across, round ? across : shape.thickness_mm};
}

PlateLayout layOutPlates(const Study &study, const Workshop &workshop)
{
    return LayoutMaker(study, workshop).make();
}

Status markPrinted(Study &study, const PlateLayout &layout, int plateNumber, const std::string &when)
{
    const bool known = std::any_of(layout.plates.begin(), layout.plates.end(),
                                   [plateNumber](const Plate &plate) { return plate.number == plateNumber; });
    if (!known)
        return Error{ErrorCode::NotFound, fmt::format("there is no plate {}", plateNumber), {}};
    for (const Plate &plate : layout.plates) {
        if (plate.printedAt.empty() && plate.number <= plateNumber)
            study.plan.print.printed.push_back({plate.number, plate.round, when, plate.pieces});
    }
    return ok();
}

Status unmarkPrinted(Study &study, int plateNumber)
{
    std::vector<PrintedPlate> &printed = study.plan.print.printed;
    const auto found = std::find_if(printed.begin(), printed.end(), [plateNumber](const PrintedPlate &plate) {
        return plate.number == plateNumber;
    });
    if (found == printed.end())
        return Error{ErrorCode::NotFound, fmt::format("plate {} is not printed", plateNumber), {}};
    if (found + 1 != printed.end())
        return invalidArgument(
            fmt::format("plate {} was printed after it; take that one back first", (found + 1)->number));
    for (const PlacedPiece &placed : found->pieces) {
        const Piece *piece = findPiece(study, placed.piece);
        if (piece != nullptr && !isUntouched(*piece))
            return invalidArgument(
                fmt::format("piece {} of this plate already holds data: it is printed", piece->code));
    }
    printed.erase(found);
    return ok();
}

bool hasBegun(const Study &study)
{
    return !study.plan.print.printed.empty() ||
           std::any_of(study.pieces.begin(), study.pieces.end(),
                       [](const Piece &piece) { return !isUntouched(piece); });
}

void recordLateChange(const Study &before, Study &after, const std::string &who, const std::string &when)
{
    if (before.plan.print.printed.empty() || after.plan.record.size() < before.plan.record.size())
        return;
    std::vector<std::string> changes;
    std::set<PieceId> old;
    for (const Piece &piece : before.pieces)
        old.insert(piece.id);
    std::map<ConditionId, int> added;
    for (const Piece &piece : after.pieces)
        added[piece.condition] += old.contains(piece.id) ? 0 : 1;
    for (const Condition &condition : after.conditions) {
        if (findCondition(before, condition.id) == nullptr)
            changes.push_back(fmt::format("rail {} added", levelText(after, condition)));
        if (added[condition.id] > 0)
            changes.push_back(
                fmt::format("{} pieces added on {}", added[condition.id], levelText(after, condition)));
    }
    for (const Condition &condition : before.conditions) {
        if (findCondition(after, condition.id) == nullptr)
            changes.push_back(fmt::format("rail {} removed", levelText(before, condition)));
    }
    const auto gone = std::count_if(before.pieces.begin(), before.pieces.end(), [&](const Piece &piece) {
        return findPiece(after, piece.id) == nullptr;
    });
    if (gone > 0)
        changes.push_back(fmt::format("{} unprinted pieces taken out", gone));
    if (before.plan.print.seed != after.plan.print.seed ||
        before.plan.print.rounds != after.plan.print.rounds)
        changes.emplace_back("the order drawn anew");
    if (before.plan.locked != after.plan.locked)
        changes.emplace_back("locked settings changed");
    if (before.reference != after.reference)
        changes.emplace_back("another reference");
    if (changes.empty())
        return;
    std::string text;
    for (const std::string &change : changes)
        text += (text.empty() ? "" : "; ") + change;
    const auto open = std::count_if(after.pieces.begin(), after.pieces.end(),
                                    [&](const Piece &piece) { return !isPrinted(after, piece.id); });
    text += fmt::format(". Printed plates stay; the order of {} unprinted pieces was drawn again.", open);
    after.plan.record.push_back({when, who, text});
}

} // namespace inchpeg
