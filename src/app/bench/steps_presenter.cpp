// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/bench/steps_presenter.h"

#include "core/planning/plan_edit.h"
#include "core/reading/reading_settings.h"
#include "core/units/gravity.h"
#include "core/units/number.h"

#include <QStringList>

#include <fmt/format.h>

#include <algorithm>

namespace inchpeg::app
{

namespace
{

constexpr double kJoulesPerKilogramMillimetre = kStandardGravity_m_per_s2 * 1e-3;

} // namespace

/// What differs between a weight that falls from a height and a torque.
struct StepsPresenter::Ladder {
    Dimension dimension = Dimension::Length;
    std::string_view level; ///< column of the record
    std::string_view held;
    std::string_view last; ///< property that tells the last level
    BoundReason heldLast = BoundReason::HeldDrop;
    StepPlan usual;
    bool isByWeight = true;
};

const StepsPresenter::Ladder &StepsPresenter::ladder() const
{
    // Common practice with a short guide, and with a hand wrench.
    static const Ladder drops{Dimension::Length,
                              "height",
                              "held_height",
                              "drop_energy",
                              BoundReason::HeldDrop,
                              {StepRule::Rise, 100.0, 50.0, 0.0},
                              true};
    static const Ladder torques{Dimension::Torque,
                                "torque",
                                "held_torque",
                                "last_torque",
                                BoundReason::HeldStep,
                                {StepRule::Rise, 2.0, 1.0, 0.0},
                                false};
    return piece() != nullptr && piece()->test == Method::SteppedTorque ? torques : drops;
}

bool StepsPresenter::isByWeight() const
{
    return ladder().isByWeight;
}

StepsPresenter::StepsPresenter(ProjectSession &session, BenchKeeper &keeper, QObject *parent)
    : QObject(parent), m_session(session), m_keeper(keeper)
{
    connect(&session, &ProjectSession::projectChanged, this, [this] {
        m_trials.clear();
        m_files.clear();
        m_order.clear();
    });
    connect(&keeper, &BenchKeeper::kept, this, [this](PieceId id, bool isLinked) {
        const Piece *of = m_session.study() == nullptr ? nullptr : findPiece(*m_session.study(), id);
        if (isLinked && m_trials.contains(id) && of != nullptr && of->recording)
            m_files[id].push_back(of->recording->file);
    });
    connect(&session, &ProjectSession::studyChanged, this, &StepsPresenter::followProject);
}

const Piece *StepsPresenter::piece() const
{
    return m_session.study() == nullptr ? nullptr : findPiece(*m_session.study(), m_piece);
}

const StudyTest *StepsPresenter::test() const
{
    return piece() == nullptr ? nullptr : findTest(*m_session.study(), piece()->test);
}

void StepsPresenter::setPiece(PieceId id)
{
    m_piece = id;
}

/// A step that was taken back takes its drop along.
void StepsPresenter::followProject()
{
    const auto trials = m_trials.find(m_piece);
    if (m_keeper.isBusy() || piece() == nullptr || trials == m_trials.end())
        return;
    std::vector<RawFileId> &files = m_files[m_piece];
    const auto present =
        piece()->recording ? std::find(files.begin(), files.end(), piece()->recording->file) : files.end();
    const auto drops =
        present == files.end() ? std::size_t{0} : static_cast<std::size_t>(present - files.begin()) + 1;
    files.resize(drops);
    if (drops < trials->second.size())
        trials->second.resize(drops);
    emit changed();
}

StepPlan StepsPresenter::plan() const
{
    return test() == nullptr ? ladder().usual : test()->setup.steps.value_or(ladder().usual);
}

std::optional<double> StepsPresenter::mass_kg() const
{
    return piece() == nullptr ? std::nullopt : testSettings(*m_session.study(), piece()->test).number("mass");
}

/// Of the other pieces on its rail: from their records, in the order in which they were tested as far as that
/// is known.
std::vector<StepTrial> StepsPresenter::trialsOfRail() const
{
    std::vector<StepTrial> all;
    if (isByWeight() && !mass_kg())
        return all;
    std::vector<const Piece *> pieces;
    for (const Piece *one : piecesOf(*m_session.study(), piece()->condition)) {
        if (one->test == piece()->test && one->recording && !one->exclusion && one->id != m_piece)
            pieces.push_back(one);
    }
    const auto placeOf = [this](const Piece *one) {
        return std::find(m_order.begin(), m_order.end(), one->id) - m_order.begin();
    };
    // Those of earlier days come first.
    std::stable_sort(pieces.begin(), pieces.end(), [&](const Piece *a, const Piece *b) {
        const auto last = static_cast<std::ptrdiff_t>(m_order.size());
        const auto placeA = placeOf(a) == last ? -1 : placeOf(a);
        const auto placeB = placeOf(b) == last ? -1 : placeOf(b);
        return placeA < placeB;
    });
    for (const Piece *one : pieces) {
        const auto typed = m_trials.find(one->id);
        if (typed != m_trials.end()) {
            all.insert(all.end(), typed->second.begin(), typed->second.end());
            continue;
        }
        const PieceReading *reading = readingOf(m_session.readings(), one->id);
        if (reading == nullptr)
            continue;
        const bool heldLast =
            std::any_of(reading->result.values.begin(), reading->result.values.end(),
                        [this](const ReadValue &value) { return value.bound == ladder().heldLast; });
        if (const std::optional<double> level = lastLevelOf(*reading))
            all.push_back({*level, !heldLast});
    }
    return all;
}

std::optional<double> StepsPresenter::lastLevelOf(const PieceReading &reading) const
{
    const ReadValue *last = valueOf(reading.result.values, ladder().last);
    if (last == nullptr)
        return std::nullopt;
    return isByWeight() ? last->number / (*mass_kg() * kJoulesPerKilogramMillimetre) : last->number;
}

std::vector<StepTrial> StepsPresenter::trials() const
{
    const auto found = m_trials.find(m_piece);
    return found == m_trials.end() ? std::vector<StepTrial>() : found->second;
}

bool StepsPresenter::isUnderWay(PieceId id) const
{
    const auto found = m_trials.find(id);
    return found != m_trials.end() && plan().rule == StepRule::Rise && nextLevel(plan(), found->second);
}

std::optional<double> StepsPresenter::nextStep() const
{
    if (piece() == nullptr)
        return std::nullopt;
    if (plan().rule == StepRule::Rise)
        return nextLevel(plan(), trials());
    return trials().empty() ? nextLevel(plan(), trialsOfRail()) : std::nullopt;
}

QString StepsPresenter::stepText(double level) const
{
    const Unit unit = m_session.notation().unitOf(ladder().dimension);
    return QString::fromStdString(m_session.notation().plain(unit.fromWorking(level), 4)) + QLatin1Char(' ') +
           QString::fromUtf8(unit.symbol.data(), qsizetype(unit.symbol.size()));
}

QString StepsPresenter::massText() const
{
    const std::optional<double> mass = mass_kg();
    return mass ? QString::fromStdString(m_session.notation().plain(*mass, 4)) + QStringLiteral(" kg")
                : QString();
}

QString StepsPresenter::nextText() const
{
    const std::optional<double> height = nextStep();
    return height ? stepText(*height) : QString();
}

QString StepsPresenter::energyText() const
{
    const std::optional<double> height = nextStep();
    if (!height)
        return {};
    if (!isByWeight())
        return tr("put on slowly, and held for ten seconds");
    if (!mass_kg())
        return tr("▲ Say what the weight weighs.");
    const double energy_J = *mass_kg() * *height * kJoulesPerKilogramMillimetre;
    return tr("%1 from this height: %2")
        .arg(massText(),
             QString::fromStdString(m_session.notation().quantity(energy_J, Dimension::Energy, 3)));
}

QString StepsPresenter::nextAction() const
{
    if (!nextStep())
        return tr("Enter: the next piece.");
    if (!isByWeight())
        return tr("Turn it with this torque. Did the piece hold (H) or fail (F)?");
    return tr("Let the weight fall. Did the piece hold (H) or fail (F)?");
}

QString StepsPresenter::trialsText() const
{
    QStringList words;
    const std::vector<StepTrial> shown = plan().rule == StepRule::Rise ? trials() : trialsOfRail();
    for (const StepTrial &trial : shown)
        words << (trial.hasFailed ? tr("✕ failed %1") : tr("● held %1")).arg(stepText(trial.level));
    if (plan().rule == StepRule::UpAndDown && !shown.empty() && !hasBothOutcomes(shown))
        words << tr("an up-and-down series says nothing before both have been seen");
    return words.join(QStringLiteral("  ·  "));
}

bool StepsPresenter::setPlan(StepRule rule, const QString &start, const QString &step)
{
    if (test() == nullptr)
        return false;
    const Unit unit = m_session.notation().unitOf(ladder().dimension);
    const Result<double> from = parseQuantity(start.simplified().toStdString(), unit);
    const Result<double> by = parseQuantity(step.simplified().toStdString(), unit);
    if (!m_session.tell(from ? ok() : Status(from.error())) ||
        !m_session.tell(by ? ok() : Status(by.error())))
        return false;
    const StepPlan plan{rule, *from, *by, 0.0};
    const Method method = piece()->test;
    const bool isSet = m_session.tryEdit(tr("steps of a test"), [&](Study &study) -> Status {
        if (const Status status = checkStepPlan(plan); !status)
            return status;
        findTest(study, method)->setup.steps = plan;
        return ok();
    });
    emit changed();
    return isSet;
}

bool StepsPresenter::setMass(const QString &mass)
{
    if (test() == nullptr)
        return false;
    const Method method = piece()->test;
    const bool isSet = m_session.tryEdit(tr("weight that falls"), [&](Study &study) {
        return setTestParameter(study, method, "mass", mass.simplified().toStdString());
    });
    emit changed();
    return isSet;
}

bool StepsPresenter::say(bool hasFailed)
{
    const std::optional<double> height = nextStep();
    if (!height)
        return false;
    if (isByWeight() && !mass_kg())
        return m_session.tell(invalidArgument("say first what the falling weight weighs, as in 1 kg"));
    std::vector<StepTrial> after = trials();
    double held = 0.0;
    for (const StepTrial &trial : after)
        held = std::max(held, trial.hasFailed ? 0.0 : trial.level);
    TypedRow row;
    row.takenAt = m_session.now();
    const bool isRise = plan().rule == StepRule::Rise;
    const std::string_view unit = symbolInFiles(ladder().dimension);
    for (const TypedColumn &column : typedColumns(*reductionOf(piece()->test))) {
        if (column.name == ladder().level)
            row.cells.push_back(fmt::format("{:g} {}", *height, unit));
        else if (column.name == "outcome")
            row.cells.emplace_back(hasFailed ? "failed" : "held");
        else if (column.name == ladder().held && isRise)
            row.cells.push_back(fmt::format("{:g} {}", held, unit));
        else
            row.cells.emplace_back();
    }
    after.push_back({*height, hasFailed});
    if (!m_keeper.keepTyped(m_piece, {row}, "step by step",
                            (isByWeight() ? tr("drop from %1") : tr("torque of %1")).arg(stepText(*height))))
        return false;
    m_trials[m_piece] = std::move(after);
    if (std::find(m_order.begin(), m_order.end(), m_piece) == m_order.end())
        m_order.push_back(m_piece);
    emit changed();
    return true;
}

} // namespace inchpeg::app
