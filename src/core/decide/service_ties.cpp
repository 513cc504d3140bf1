// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/decide/service_ties.h"

#include "core/logbook/rail_costs.h"
#include "core/model/polymer.h"
#include "core/planning/planned_test.h"
#include "core/text/letters.h"
#include "core/text/list_text.h"

#include <fmt/format.h>

#include <algorithm>

namespace inchpeg
{

namespace
{

constexpr int kTieDigits = 3;

struct Coupons {
    std::size_t n = 0;
    double sum_MPa = 0.0;
    bool isOfPolymer = false; ///< no coupon is of that very material
    [[nodiscard]] bool isEmpty() const { return n == 0; }
    /// Precondition: not empty.
    [[nodiscard]] double mean_MPa() const { return sum_MPa / static_cast<double>(n); }
};

class ServiceTies
{
public:
    ServiceTies(const Study &study, const PieceReadings &readings, std::span<const StudyResults> all,
                const Workshop &workshop, std::span<const BoughtPart> bought, const Notation &notation)
        : m_study(study), m_readings(readings), m_all(all), m_bought(bought), m_notation(notation),
          m_money(workshop.moneyUnit),
          m_prices(railCosts(study, Method::ServiceTrial, CostKind::Price, workshop))
    {
    }

    std::vector<std::string> sentences()
    {
        const Reduction &reduction = *reductionOf(Method::ServiceTrial);
        const StudyComparison hours = compared(*findProperty(reduction, "service_hours"));
        const StudyComparison cracks = compared(*findProperty(reduction, "cracks"));
        const StudyComparison confidence = compared(*findProperty(reduction, "confidence"));
        std::vector<std::string> sentences;
        std::vector<std::pair<double, double>> orders; // strength of the coupons, confidence
        for (std::size_t i = 0; i < hours.rails.size(); ++i) {
            if (hours.rails[i].summary.n == 0)
                continue;
            const Condition &condition = *findCondition(m_study, hours.rails[i].condition);
            const Coupons flat = coupons(condition, Method::Tension, Orientation::Flat);
            const Coupons standing = coupons(condition, Method::LayerAdhesion, Orientation::Standing);
            sentences.push_back(fmt::format("{}: {}; {}; {}.", distinctTitle(m_study, condition),
                                            fared(hours.rails[i], cracks.rails[i]),
                                            couponText(flat, standing), priceText(condition)));
            const Coupons &strongest = flat.isEmpty() ? standing : flat;
            if (!strongest.isEmpty() && confidence.rails[i].summary.median)
                orders.emplace_back(strongest.mean_MPa(), *confidence.rails[i].summary.median);
        }
        if (const std::string order = orderText(orders); !order.empty())
            sentences.push_back(order);
        return sentences;
    }

private:
    [[nodiscard]] StudyComparison compared(const Property &property) const
    {
        return compareStudy(m_study, m_readings, property,
                            {.test = Method::ServiceTrial, .detail = ComparisonDetail::Values});
    }

    /// "two parts served 1200 h or more, cracks were heard 3 times".
    [[nodiscard]] std::string fared(const RailComparison &hours, const RailComparison &cracks) const
    {
        std::string text = fmt::format(
            "{} {} served {} h{}", hours.summary.n, hours.summary.n == 1 ? "part" : "parts",
            m_notation.plain(*hours.summary.median, kTieDigits),
            hours.bounds > 0 ? fmt::format(" or more ({} still do)", hours.bounds) : std::string());
        double heard = 0.0;
        for (const PieceValue &value : cracks.values)
            heard += value.counts() ? value.value : 0.0;
        if (cracks.summary.n > 0)
            text += heard > 0.0 ? fmt::format(", cracks were heard {} times", m_notation.plain(heard))
                                : ", no crack was heard";
        return text;
    }

    [[nodiscard]] Coupons coupons(const Condition &rail, Method test, Orientation orientation) const
    {
        Coupons ofMaterial;
        Coupons ofPolymer;
        ofPolymer.isOfPolymer = true;
        const PolymerGuess polymer = polymerOf(m_study, rail);
        for (const StudyResults &results : m_all) {
            const Study &study = *results.study;
            if (findTest(study, test) == nullptr)
                continue;
            for (const RailValues &one :
                 results.railValues(test, *findProperty(*reductionOf(test), "tensile_strength"))) {
                const Condition &condition = *findCondition(study, one.condition);
                if (condition.orientation != orientation || one.bounds > 0)
                    continue;
                const PolymerGuess other = polymerOf(study, condition);
                const bool isSamePolymer = polymer.isKnown && other.isKnown && polymer.facts == other.facts;
                Coupons *into = !rail.material.empty() && condition.material == rail.material ? &ofMaterial
                                : isSamePolymer                                               ? &ofPolymer
                                                                                              : nullptr;
                if (into != nullptr) {
                    into->n += one.n;
                    into->sum_MPa += static_cast<double>(one.n) * one.mean;
                }
            }
        }
        return ofMaterial.isEmpty() ? ofPolymer : ofMaterial;
    }

    [[nodiscard]] std::string couponText(const Coupons &flat, const Coupons &standing) const
    {
        if (flat.isEmpty() && standing.isEmpty())
            return "no coupon of it was tested";
        const auto one = [&](const Coupons &coupons, std::string_view how) {
            return fmt::format("{} {} ({} {}{})",
                               m_notation.quantity(coupons.mean_MPa(), Dimension::Stress, kTieDigits), how,
                               coupons.n, coupons.n == 1 ? "piece" : "pieces",
                               coupons.isOfPolymer ? " of the polymer" : "");
        };
        std::vector<std::string> said;
        if (!flat.isEmpty())
            said.push_back(one(flat, "flat"));
        if (!standing.isEmpty())
            said.push_back(one(standing, "across the layers"));
        return "coupons hold " + listText(said);
    }

    [[nodiscard]] std::string priceText(const Condition &condition) const
    {
        const std::string title = smallLetters(distinctTitle(m_study, condition));
        for (const BoughtPart &part : m_bought) {
            const std::string name = smallLetters(part.name);
            if (!name.empty() && (title == name || smallLetters(condition.material) == name))
                return fmt::format("one costs {} {} to buy", m_notation.fixed(part.price, 2), m_money);
        }
        for (const RailCost &cost : m_prices) {
            if (cost.condition == condition.id)
                return fmt::format("one costs {} {} in material", m_notation.fixed(cost.perPiece, 2),
                                   m_money);
        }
        return "its price is not known";
    }

    [[nodiscard]] static std::string orderText(const std::vector<std::pair<double, double>> &orders)
    {
        std::size_t pairs = 0;
        std::size_t agreeing = 0;
        for (std::size_t a = 0; a < orders.size(); ++a) {
            for (std::size_t b = a + 1; b < orders.size(); ++b) {
                const double product =
                    (orders[a].first - orders[b].first) * (orders[a].second - orders[b].second);
                pairs += product != 0.0 ? 1U : 0U; // equally trusted rails have no order
                agreeing += product > 0.0 ? 1U : 0U;
            }
        }
        constexpr std::size_t kLeastPairs = 3;
        return pairs < kLeastPairs ? std::string()
                                   : fmt::format("The order of the coupons and of the confidence in service "
                                                 "agree in {} of {} pairs of rails.",
                                                 agreeing, pairs);
    }

    const Study &m_study;
    const PieceReadings &m_readings;
    std::span<const StudyResults> m_all;
    std::span<const BoughtPart> m_bought;
    const Notation &m_notation;
    std::string m_money;
    std::vector<RailCost> m_prices;
};

} // namespace

std::vector<std::string> serviceTies(const Study &study, const PieceReadings &readings,
                                     std::span<const StudyResults> all, const Workshop &workshop,
                                     std::span<const BoughtPart> bought, const Notation &notation)
{
    if (findTest(study, Method::ServiceTrial) == nullptr)
        return {};
    return ServiceTies(study, readings, all, workshop, bought, notation).sentences();
}

} // namespace inchpeg
