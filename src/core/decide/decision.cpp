// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/decide/decision.h"

#include "core/base/random.h"
#include "core/decide/need_text.h"
#include "core/method/method.h"
#include "core/stats/distributions.h"
#include "core/text/list_text.h"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>
#include <limits>
#include <numeric>

namespace inchpeg
{

namespace
{

// What is not measured here scatters from what is true of this print by so much (ours): for the draws alone.
constexpr double kSheetScatter = 0.10;
constexpr double kUsualScatter = 0.20;
constexpr double kUsualScatter_K = 5.0;
constexpr int kLeastPieces = 3;
constexpr int kMostPieces = 20;
constexpr int kDecisionDigits = 3;

std::string evidenceText(const Evidence &evidence)
{
    switch (evidence.kind) {
    case EvidenceKind::Measured:
        return evidence.n == 0
                   ? evidence.method
                   : fmt::format("{}, {} piece{}", evidence.method, evidence.n, evidence.n == 1 ? "" : "s");
    case EvidenceKind::Sheet:
        return evidence.study == "quote" ? "quote" : "data sheet";
    case EvidenceKind::Usual:
        return evidence.method.empty() ? evidence.study : evidence.method; // of a mass: how it was estimated
    case EvidenceKind::None:
        break;
    }
    return "nothing known";
}

/// Whether a value lies on the good side.
bool clears(const NeedTarget &target, double value, double gate)
{
    return target.isAtLeast ? value >= gate : value <= gate;
}

double gateFor(const Need &need)
{
    return need.kind == NeedKind::Printer ? 0.5 : need.gate();
}

/// What a gate asks of a population: what nine in ten pieces bear, or the mean.
double gateAsks(const PieceSample &population, const NeedTarget &target)
{
    static const double kNineInTen = normalQuantile(0.9);
    return !target.isEachPiece
               ? population.mean
               : population.mean + (target.isAtLeast ? -1.0 : 1.0) * kNineInTen * population.sd;
}

/// How well a wish is met: 1 at the gate or beyond, less the further off.
double wishMet(const Need &need, const Gate &gate)
{
    if (gate.state == GateState::Passes)
        return 1.0;
    if (!gate.evidence.value || !(need.gate() > 0.0))
        return 0.0;
    const NeedTarget target = targetOf(need);
    const std::optional<PieceSample> &judged = gate.evidence.judged;
    const double value = judged ? gateAsks(*judged, target) : *gate.evidence.value;
    const double ratio = target.isAtLeast ? value / need.gate() : need.gate() / std::max(value, 1e-12);
    return std::clamp(ratio, 0.0, 1.0);
}

double wishScore(const Needs &needs, const std::vector<Gate> &gates)
{
    double sum = 0.0;
    double weights = 0.0;
    for (std::size_t i = 0; i < needs.needs.size(); ++i) {
        const Need &need = needs.needs[i];
        if (need.isMust)
            continue;
        sum += need.weight * wishMet(need, gates[i]);
        weights += need.weight;
    }
    return weights > 0.0 ? sum / weights : 1.0;
}

/// The larger, the better: first by failed musts, then by those that are not known, then by wishes.
struct Place {
    int fails = 0;
    int unknown = 0;
    double score = 0.0;

    [[nodiscard]] bool isBefore(const Place &other) const
    {
        if ((fails > 0) != (other.fails > 0))
            return fails == 0;
        if (fails != other.fails)
            return fails < other.fails;
        if (unknown != other.unknown)
            return unknown < other.unknown;
        return score > other.score;
    }
};

Place placeOf(const RankedCandidate &ranked)
{
    return {ranked.fails, ranked.unknown, ranked.wishScore};
}

/// Sum of squares of so many standard normal numbers.
double chiSquared(int df, Random &random)
{
    double sum = 0.0;
    for (int i = 0; i < df; ++i) {
        const double z = random.normal();
        sum += z * z;
    }
    return sum;
}

/// What is known of a scatter before any piece is broken: so much, as if from so many degrees of freedom.
struct ScatterBefore {
    double sd = 0.0;
    int df = 0;
};

/// Mean and scatter as they may truly be behind a sample: s² ν/χ² and x̄ + σ z/√n.
PieceSample drawnPopulation(const PieceSample &sample, Random &random, ScatterBefore before = {})
{
    const int df = static_cast<int>(sample.n) - 1;
    const double squares = df * sample.sd * sample.sd + before.df * before.sd * before.sd;
    PieceSample truth = sample;
    truth.sd = std::sqrt(squares / chiSquared(df + before.df, random));
    truth.mean = sample.mean + truth.sd * random.normal() / std::sqrt(static_cast<double>(sample.n));
    return truth;
}

/// One value as it may truly be, from what is known of it.
double drawn(const Need &need, const Evidence &evidence, Random &random)
{
    const double value = *evidence.value;
    const bool isTemperature = targetOf(need).property.dimension == Dimension::Temperature;
    if (need.kind == NeedKind::Printer || need.kind == NeedKind::Weather)
        return value;
    if (evidence.judged && evidence.judged->n >= 2 && evidence.judged->sd > 0.0) {
        const PieceSample truth = drawnPopulation(*evidence.judged, random);
        return gateAsks(truth, targetOf(need));
    }
    if (evidence.kind == EvidenceKind::Measured && evidence.n == 0)
        return value; // a mass or a price
    if (isTemperature)
        return value + kUsualScatter_K * random.normal();
    const double scatter = evidence.kind == EvidenceKind::Usual ? kUsualScatter : kSheetScatter;
    return value * std::exp(scatter * random.normal());
}

/// How often each comes first where every value is drawn anew from what is known of it. What is not known at
/// all stays so.
std::vector<double> firstShares(const Needs &needs, const std::vector<RankedCandidate> &candidates, int draws,
                                std::uint64_t seed)
{
    std::vector<double> shares(candidates.size(), 0.0);
    Random random(seed);
    for (int draw = 0; draw < draws; ++draw) {
        std::vector<std::size_t> first; // those that are equally good share the place
        Place best;
        for (std::size_t c = 0; c < candidates.size(); ++c) {
            Place place;
            double sum = 0.0;
            double weights = 0.0;
            for (std::size_t i = 0; i < needs.needs.size(); ++i) {
                const Need &need = needs.needs[i];
                const Evidence &evidence = candidates[c].gates[i].evidence;
                const NeedTarget target = targetOf(need);
                if (!need.isMust)
                    weights += need.weight;
                const bool isOpen = evidence.isBound && candidates[c].gates[i].state == GateState::Unknown;
                if (!evidence.value || isOpen || need.kind == NeedKind::Never) {
                    place.unknown += need.isMust ? 1 : 0;
                    continue;
                }
                const double value = drawn(need, evidence, random);
                const bool passes = clears(target, value, gateFor(need));
                if (need.isMust) {
                    place.fails += passes ? 0 : 1;
                } else {
                    const double ratio =
                        target.isAtLeast ? value / need.gate() : need.gate() / std::max(value, 1e-12);
                    sum += need.weight * (passes ? 1.0 : std::clamp(ratio, 0.0, 1.0));
                }
            }
            place.score = weights > 0.0 ? sum / weights : 1.0;
            if (first.empty() || place.isBefore(best)) {
                first = {c};
                best = place;
            } else if (!best.isBefore(place)) {
                first.push_back(c);
            }
        }
        for (const std::size_t one : first)
            shares[one] += 1.0 / (static_cast<double>(draws) * static_cast<double>(first.size()));
    }
    return shares;
}

/// Whether a sample settles a gate, either way.
bool isSettled(const PieceSample &sample, const NeedTarget &target, double gate)
{
    if (!clears(target, sample.mean, gate))
        return true;
    const std::optional<SampleBounds> bounds = boundsOfSample(sample, target);
    return bounds && (clears(target, bounds->sure, gate) || !clears(target, bounds->atBest, gate));
}

/// The sample with further pieces of the same population.
PieceSample withMore(const PieceSample &sample, const PieceSample &population, int more, Random &random)
{
    const auto n = static_cast<double>(sample.n);
    const double mean =
        population.mean + population.sd * random.normal() / std::sqrt(static_cast<double>(more));
    const double squares = population.sd * population.sd * chiSquared(more - 1, random);
    const double away = mean - sample.mean;
    PieceSample all;
    all.n = sample.n + static_cast<std::size_t>(more);
    const auto count = static_cast<double>(all.n);
    all.mean = (n * sample.mean + more * mean) / count;
    all.sd = std::sqrt(((n - 1.0) * sample.sd * sample.sd + squares + n * more / count * away * away) /
                       (count - 1.0));
    return all;
}

/// Pieces in all with which the gate is settled in eight of ten cases that what is known allows; nothing
/// where kMostPieces would not do it. usualCv: of the test: few pieces that lie close together by chance make
/// a gate look nearer to settled than it is, so what is usual counts as two pieces more.
std::optional<int> piecesToSettle(const PieceSample &sample, const NeedTarget &target, double gate,
                                  double usualCv)
{
    constexpr int kFutures = 300;
    constexpr double kWanted = 0.88; // for the least of many numbers is also the luckiest
    const ScatterBefore before{usualCv * std::abs(sample.mean), 2};
    Random random(7);
    for (int n = std::max(kLeastPieces, static_cast<int>(sample.n) + 1); n <= kMostPieces; ++n) {
        int settled = 0;
        for (int i = 0; i < kFutures; ++i) {
            const PieceSample truth = drawnPopulation(sample, random, before);
            const PieceSample later = withMore(sample, truth, n - static_cast<int>(sample.n), random);
            settled += isSettled(later, target, gate) ? 1 : 0;
        }
        if (settled >= kWanted * kFutures)
            return n;
    }
    return std::nullopt;
}

std::string marginText(const Need &need, const Gate &gate, const Notation &notation)
{
    const NeedTarget target = targetOf(need);
    if (!gate.margin)
        return {};
    const double size = std::abs(*gate.margin);
    if (target.property.dimension == Dimension::Temperature)
        return notation.quantity(size, Dimension::TemperatureDifference, 2);
    return !isComparedAsRatio(target.property) ? notation.plain(size, kDecisionDigits)
                                               : notation.percent(size);
}

class Decider
{
public:
    Decider(const DecisionRequest &request, const Notation &notation)
        : m_request(request), m_notation(notation)
    {
    }

    Decision decide()
    {
        m_decision.needs = m_request.needs;
        for (Candidate &candidate : candidatesOf(m_request.results, m_request.needs))
            m_decision.order.push_back(judged(std::move(candidate)));
        if (m_request.draws > 0) {
            const std::vector<double> shares =
                firstShares(m_request.needs, m_decision.order, m_request.draws, m_request.seed);
            for (std::size_t i = 0; i < shares.size(); ++i)
                m_decision.order[i].firstShare = shares[i];
        }
        std::stable_sort(m_decision.order.begin(), m_decision.order.end(),
                         [](const RankedCandidate &a, const RankedCandidate &b) {
                             return placeOf(a).isBefore(placeOf(b));
                         });
        for (RankedCandidate &ranked : m_decision.order)
            ranked.why = whyText(ranked);
        addSettling();
        m_decision.headline = headline();
        addRelaxations();
        addTurns();
        addCautions();
        return std::move(m_decision);
    }

private:
    RankedCandidate judged(Candidate candidate) const
    {
        RankedCandidate ranked;
        for (const Need &need : m_request.needs.needs) {
            Gate gate = gateOf(need, evidenceFor(candidate, need, m_request.results, *m_request.workshop),
                               m_notation, m_request.workshop->moneyUnit);
            if (need.isMust) {
                ranked.fails += gate.state == GateState::Fails ? 1 : 0;
                ranked.unknown += gate.state == GateState::Unknown ? 1 : 0;
            }
            ranked.gates.push_back(std::move(gate));
        }
        ranked.wishScore = wishScore(m_request.needs, ranked.gates);
        ranked.candidate = std::move(candidate);
        return ranked;
    }

    [[nodiscard]] const Need &need(std::size_t i) const { return m_request.needs.needs[i]; }

    [[nodiscard]] std::string whyText(const RankedCandidate &ranked) const
    {
        std::vector<std::string> lost;
        std::vector<std::string> open;
        for (std::size_t i = 0; i < ranked.gates.size(); ++i) {
            if (!need(i).isMust)
                continue;
            if (ranked.gates[i].state == GateState::Fails)
                lost.push_back(ranked.gates[i].why);
            if (ranked.gates[i].state == GateState::Unknown)
                open.push_back(need(i).name);
        }
        if (!lost.empty())
            return listText(lost, "; ");
        if (!open.empty())
            return fmt::format("Not known of it: {}.", listText(open));
        return fmt::format("Passes every must; wishes met by {}.", m_notation.percent(ranked.wishScore));
    }

    [[nodiscard]] std::string headline() const
    {
        if (m_decision.order.empty())
            return "No candidate: nothing has been tested yet, and no material is named.";
        const RankedCandidate &first = m_decision.order.front();
        if (const std::string tied = tieText(); !tied.empty())
            return tied;
        const std::string sure = sureText();
        if (first.fails > 0)
            return fmt::format("Nobody passes every must. Nearest is {}: {}", first.candidate.name,
                               first.why);
        if (first.unknown > 0)
            return fmt::format(
                "Nobody surely passes every must. {} may, but {} of {} musts {} not known well enough.{}",
                first.candidate.name, first.unknown, musts(), first.unknown == 1 ? "is" : "are", sure);
        const int weak = weakMusts(first);
        const std::string ground =
            weak == 0 ? std::string()
                      : fmt::format(" But {} of {} musts rest{} on a data sheet or on what is usual, not on "
                                    "a result.",
                                    weak, musts(), weak == 1 ? "s" : "");
        return fmt::format("{} passes every must.{}{}", first.candidate.name, ground, sure);
    }

    /// Those that share the first place.
    [[nodiscard]] std::size_t firsts() const
    {
        std::size_t count = 1;
        while (count < m_decision.order.size() &&
               !placeOf(m_decision.order.front()).isBefore(placeOf(m_decision.order[count])))
            ++count;
        return count;
    }

    /// Empty where one stands alone, or where the first fails.
    [[nodiscard]] std::string tieText() const
    {
        const RankedCandidate &first = m_decision.order.front();
        const std::size_t count = firsts();
        if (count < 2 || first.fails > 0)
            return {};
        std::vector<std::string> names;
        for (std::size_t i = 0; i < count; ++i)
            names.push_back(m_decision.order[i].candidate.name);
        const std::string how =
            first.unknown > 0 ? fmt::format("nobody surely passes every must, and the same number of musts, "
                                            "{}, is not known of them",
                                            first.unknown)
                              : "each passes every must, and the wishes are met alike";
        constexpr std::size_t kMostNamed = 4;
        const std::string who = count <= kMostNamed
                                    ? listText(names)
                                    : fmt::format("{} candidates, {} among them,", count, names.front());
        return fmt::format("{} share the first place: {}.", who, how);
    }

    /// How sure the first place is, and who would have it more often.
    [[nodiscard]] std::string sureText() const
    {
        if (m_request.draws == 0 || m_decision.order.size() < 2)
            return {};
        const auto inHundred = [](const RankedCandidate &one) {
            return static_cast<int>(std::lround(100.0 * one.firstShare));
        };
        const RankedCandidate &first = m_decision.order.front();
        std::string text =
            fmt::format(" It comes first in {} of 100 cases drawn from what is known.", inHundred(first));
        const auto rival = std::max_element(
            m_decision.order.begin() + 1, m_decision.order.end(),
            [](const RankedCandidate &a, const RankedCandidate &b) { return a.firstShare < b.firstShare; });
        if (inHundred(*rival) > inHundred(first))
            text += fmt::format(" {} would in {}, once what is not known of it is settled.",
                                rival->candidate.name, inHundred(*rival));
        return text;
    }

    [[nodiscard]] int musts() const
    {
        return static_cast<int>(std::count_if(m_request.needs.needs.begin(), m_request.needs.needs.end(),
                                              [](const Need &one) { return one.isMust; }));
    }

    /// Musts behind which no result stands.
    [[nodiscard]] int weakMusts(const RankedCandidate &ranked) const
    {
        int weak = 0;
        for (std::size_t i = 0; i < ranked.gates.size(); ++i)
            weak += need(i).isMust && ranked.gates[i].evidence.kind != EvidenceKind::Measured ? 1 : 0;
        return weak;
    }

    void addSettling()
    {
        for (std::size_t c = 0; c < m_decision.order.size(); ++c) {
            const RankedCandidate &ranked = m_decision.order[c];
            if (ranked.fails > 0 || ranked.candidate.quote)
                continue; // another test would not save it, and a bought part is not broken here
            for (std::size_t i = 0; i < ranked.gates.size(); ++i) {
                const Gate &gate = ranked.gates[i];
                const NeedTarget target = targetOf(need(i));
                const bool isWeak = gate.state == GateState::Unknown ||
                                    (gate.evidence.kind != EvidenceKind::Measured && need(i).isMust);
                if (!isWeak || !target.test)
                    continue;
                m_decision.settle.push_back(settlingOf(c, i, *target.test));
            }
        }
    }

    [[nodiscard]] Settling settlingOf(std::size_t candidate, std::size_t i, Method test) const
    {
        const Evidence &evidence = m_decision.order[candidate].gates[i].evidence;
        const std::string name = m_decision.order[candidate].candidate.name;
        const auto said = [&](int pieces, const std::string &why, const std::string &then) {
            return Settling{i,
                            candidate,
                            test,
                            pieces,
                            evidence.judgedRail,
                            static_cast<int>(evidence.judged ? evidence.judged->n : 0),
                            fmt::format("{}: {} for \"{}\"; {}", name, why, need(i).name, then)};
        };
        const bool isScatterKnown = evidence.judged && evidence.judged->n >= 2 && evidence.judged->sd > 0.0;
        if (evidence.kind != EvidenceKind::Measured || !isScatterKnown) {
            const int begin = std::max(kLeastPieces, static_cast<int>(evidence.n) + 2);
            const std::string why = evidence.kind == EvidenceKind::None ? "nothing is known of it"
                                    : evidence.kind != EvidenceKind::Measured
                                        ? fmt::format("only {} stands behind it", evidenceText(evidence))
                                        : std::string("too few pieces to know its scatter");
            return said(begin, why,
                        fmt::format("begin with {} pieces in {}: how many it takes shows then", begin,
                                    methodName(test)));
        }
        const std::optional<int> pieces =
            piecesToSettle(*evidence.judged, targetOf(need(i)), gateFor(need(i)), factsOf(test).usualCv);
        const std::string why = "it lies too close to the gate for its scatter";
        if (!pieces)
            return said(0, why,
                        fmt::format("pieces alone will not settle it, {} would in less than 8 of 10 cases: "
                                    "another print, shape or limit would",
                                    kMostPieces));
        return said(*pieces, why,
                    fmt::format("{} pieces in {}, {} of them there, settle it in 8 of 10 cases", *pieces,
                                methodName(test), evidence.judged->n));
    }

    /// Where nobody passes: what the nearest would need.
    void addRelaxations()
    {
        if (m_decision.order.empty() || m_decision.order.front().fails == 0)
            return;
        const RankedCandidate &nearest = m_decision.order.front();
        for (std::size_t i = 0; i < nearest.gates.size(); ++i) {
            const Gate &gate = nearest.gates[i];
            if (!need(i).isMust || gate.state != GateState::Fails || !gate.evidence.value)
                continue;
            const NeedTarget target = targetOf(need(i));
            if (need(i).kind == NeedKind::Printer || need(i).kind == NeedKind::Weather)
                continue;
            m_decision.sentences.push_back(fmt::format(
                "{} would pass if \"{}\" were {} {} instead of {}.", nearest.candidate.name, need(i).name,
                target.isAtLeast ? "at least" : "at most",
                needValueText(need(i),
                              gate.evidence.sure.value_or(*gate.evidence.value) / need(i).safetyFactor,
                              m_notation),
                needValueText(need(i), need(i).limit, m_notation, m_request.workshop->moneyUnit)));
        }
    }

    /// For which weights the first place would change hands.
    void addTurns()
    {
        if (m_decision.order.size() < 2 || m_decision.order.front().fails > 0)
            return;
        const RankedCandidate &first = m_decision.order[0];
        for (std::size_t i = 0; i < m_request.needs.needs.size(); ++i) {
            if (need(i).isMust)
                continue;
            Needs other = m_request.needs;
            for (const double times : {2.0, 4.0, 0.0}) {
                other.needs[i].weight = times * need(i).weight;
                const double own = scoreWith(other, first);
                const auto ahead = std::find_if(
                    m_decision.order.begin() + 1, m_decision.order.end(), [&](const RankedCandidate &one) {
                        return one.fails == first.fails && one.unknown == first.unknown &&
                               scoreWith(other, one) > own + 1e-9;
                    });
                if (ahead == m_decision.order.end())
                    continue;
                m_decision.sentences.push_back(
                    fmt::format("{} \"{}\", {} would come first.",
                                times == 0.0 ? std::string("Without the wish")
                                             : fmt::format("With {:g} times the weight on", times),
                                need(i).name, ahead->candidate.name));
                break;
            }
        }
    }

    static double scoreWith(const Needs &needs, const RankedCandidate &ranked)
    {
        return wishScore(needs, ranked.gates);
    }

    void addCautions()
    {
        for (const Need &one : m_request.needs.needs) {
            if (one.kind == NeedKind::Never)
                m_decision.sentences.push_back(
                    fmt::format("\"{}\" is not answered here: what touches food or skin, burns, or keeps "
                                "people safe is for accredited "
                                "laboratories, licensed practice and local codes.",
                                one.name));
        }
        const bool isBeyond =
            std::any_of(m_decision.order.begin(), m_decision.order.end(), [](const RankedCandidate &one) {
                return std::any_of(one.gates.begin(), one.gates.end(),
                                   [](const Gate &gate) { return gate.evidence.isBeyondData; });
            });
        if (isBeyond)
            m_decision.sentences.emplace_back(
                "Creep beyond the readings is foretold by three weighed laws; nobody has seen it yet.");
    }

    const DecisionRequest &m_request;
    const Notation &m_notation;
    Decision m_decision;
};

} // namespace

std::string_view gateStateName(GateState state)
{
    switch (state) {
    case GateState::Passes:
        return "passes";
    case GateState::Fails:
        return "fails";
    case GateState::Unknown:
        return "unknown";
    }
    throw ContractViolation("unknown state of a gate");
}

Gate gateOf(const Need &need, Evidence evidence, const Notation &notation, std::string_view money)
{
    const NeedTarget target = targetOf(need);
    Gate gate;
    gate.evidence = std::move(evidence);
    const Evidence &known = gate.evidence;
    if (!known.value) {
        gate.why = fmt::format("Nothing is known of \"{}\".", need.name);
        return gate;
    }
    const double at = gateFor(need);
    const double value = *known.value;
    const auto marginOf = [&](double one) {
        const double far = (target.isAtLeast ? 1.0 : -1.0) * (one - at);
        return !isComparedAsRatio(target.property) || need.kind == NeedKind::Printer ? far : far / at;
    };
    gate.margin = marginOf(value);
    const bool isClear = clears(target, value, at);
    const std::string what =
        fmt::format("{} {}{} against {} {} ({})", target.property.label, known.isBound ? "at least " : "",
                    needValueText(need, value, notation, money), target.isAtLeast ? "at least" : "at most",
                    needValueText(need, at, notation, money), evidenceText(known));
    if (known.isBound && (!isClear || !target.isAtLeast)) {
        gate.why = what + ": a bound that tells nothing here.";
        return gate;
    }
    if (!isClear) {
        gate.state = GateState::Fails;
        gate.why = need.kind == NeedKind::Printer ? fmt::format("\"{}\": {}.", need.name, known.note)
                                                  : fmt::format("Fails \"{}\" by {}: {}.", need.name,
                                                                marginText(need, gate, notation), what);
        return gate;
    }
    const bool isPieces =
        known.kind == EvidenceKind::Measured && known.n > 0 && !known.isBound && hasMean(target.property);
    const auto reach = [&](std::string_view only) {
        return fmt::format("{}; {}{} {}", what, known.sureOf, only,
                           needValueText(need, *known.sure, notation, money));
    };
    if (isPieces && !known.sure) {
        gate.why = fmt::format("Too few pieces for \"{}\": {}.", need.name, what);
        return gate;
    }
    if (isPieces && known.atBest && !clears(target, *known.atBest, at)) {
        gate.state = GateState::Fails;
        gate.margin = marginOf(*known.atBest);
        gate.why = fmt::format("Fails \"{}\" by {}: {}; even at best {} {}.", need.name,
                               marginText(need, gate, notation), what,
                               target.isEachPiece ? "nine in ten pieces reach no more than" : "the mean is",
                               needValueText(need, *known.atBest, notation, money));
        return gate;
    }
    if (isPieces) {
        gate.margin = marginOf(*known.sure);
        if (!clears(target, *known.sure, at)) {
            gate.why = fmt::format("Too close at \"{}\": {}.", need.name, reach(" only"));
            return gate;
        }
        gate.state = GateState::Passes;
        gate.why =
            fmt::format("Passes \"{}\" by {}: {}.", need.name, marginText(need, gate, notation), reach(""));
        return gate;
    }
    gate.state = GateState::Passes;
    gate.why = fmt::format("Passes \"{}\" by {}: {}.", need.name, marginText(need, gate, notation), what);
    return gate;
}

Decision decide(const DecisionRequest &request, const Notation &notation)
{
    return Decider(request, notation).decide();
}

} // namespace inchpeg
