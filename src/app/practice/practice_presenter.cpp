// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/practice/practice_presenter.h"

#include "core/base/json_fields.h"
#include "core/base/json_text.h"
#include "core/logbook/bench_plan.h"
#include "core/model/study_edit.h"
#include "core/planning/plan_edit.h"
#include "core/planning/print_estimate.h"
#include "core/planning/rig_check.h"
#include "service/on_all_cores.h"

#include <QPointer>

#include <fmt/format.h>

#include <algorithm>
#include <set>

namespace inchpeg::app
{

namespace
{

constexpr const char *kSeed = "practice_seed";
constexpr std::pair<PracticeVerdict, const char *> kNames[] = {
    {PracticeVerdict::CannotTell, "cannot tell"},
    {PracticeVerdict::More, "more"},
    {PracticeVerdict::Less, "less"},
    {PracticeVerdict::NoDifference, "no difference"}};

std::string settingName(StudyId study)
{
    return fmt::format("practice_verdict_{}", study.value);
}

} // namespace

PracticePresenter::PracticePresenter(ProjectSession &session, PlanState &plan, QObject *parent)
    : QObject(parent), m_session(session), m_plan(plan)
{
    connect(&session, &ProjectSession::projectChanged, this, &PracticePresenter::refresh);
    connect(&session, &ProjectSession::studyChanged, this, &PracticePresenter::refresh);
    connect(&session, &ProjectSession::comparisonChanged, this, &PracticePresenter::changed);
}

Status PracticePresenter::begin(std::uint64_t seed)
{
    if (const Status kept = m_session.project().setSetting(kSeed, fmt::format("{}", seed)); !kept)
        return kept;
    m_path.clear();
    if (const Status added = m_session.addStudy(tr("Does a slower print hold more?")); !added)
        return added;
    return m_session.edit(tr("rails"), [this](Study &study) -> Status {
        study.factors.front().name = "speed";
        study.factors.front().unit = "mm/s";
        for (const char *level : {"90", "60", "30"}) {
            const Status added = addCondition(
                study, {{}, {level}, Orientation::Flat, "glycol-modified polyester"}, m_session.ids());
            if (!added)
                return added;
        }
        return ok();
    });
}

void PracticePresenter::refresh()
{
    if (m_session.projectPath() != m_path) {
        m_path = m_session.projectPath();
        m_seed.reset();
        const Result<std::optional<std::string>> seed =
            m_session.hasProject() ? m_session.project().setting(kSeed)
                                   : Result<std::optional<std::string>>(std::optional<std::string>());
        if (seed && *seed)
            m_seed = std::strtoull((*seed)->c_str(), nullptr, 10);
    }
    const StudyId study = m_session.study() == nullptr ? StudyId{} : m_session.study()->id;
    if (study != m_study) {
        m_study = study;
        readVerdict();
    }
    emit changed();
}

/// As it was given; one that was kept shows the truth.
void PracticePresenter::readVerdict()
{
    m_said.clear();
    m_plans.clear();
    m_isRevealed = false;
    if (!m_seed || m_session.study() == nullptr)
        return;
    const Result<std::optional<std::string>> kept = m_session.project().setting(settingName(m_study));
    if (!kept || !*kept)
        return;
    try {
        const OrderedJson said = parsedJson(**kept);
        for (const auto &[rail, name] : said.items()) {
            for (const auto &[verdict, known] : kNames) {
                if (name.get<std::string>() == known)
                    m_said[ConditionId{std::stoll(rail)}] = verdict;
            }
        }
        m_isRevealed = true;
    } catch (const std::exception &) {
        m_said.clear(); // somebody changed the setting by hand: the verdict is given once more
    }
    if (m_isRevealed)
        askOtherPlans();
}

PracticeTruth PracticePresenter::truth() const
{
    const Study &study = *m_session.study();
    const Method method = m_session.shownTest().value_or(methodOf(study));
    const Condition *reference = findCondition(study, study.reference);
    const std::optional<ExpectedLoad> load =
        reference == nullptr
            ? std::nullopt
            : expectedLoad(study, testOfMethod(plannedTests(study), method), *reference, OwnResults{});
    constexpr double kUsual_N = 1200.0; ///< where nothing is known of the polymer
    return practiceTruth(study, load && load->value > 0.0 ? load->value : kUsual_N, *m_seed);
}

std::optional<double> PracticePresenter::load_N(const Piece &piece) const
{
    if (!m_seed || !canPractise(piece.test))
        return std::nullopt;
    return practiceLoad_N(truth(), piece, *m_seed);
}

/// One of each rail, in the drawn order, or all.
std::vector<PieceId> PracticePresenter::waiting(bool all) const
{
    std::vector<PieceId> pieces;
    std::set<ConditionId> taken;
    const Study &study = *m_session.study();
    for (const PieceId id : benchOrder(study, *m_session.shownTest())) {
        if (all || taken.insert(findPiece(study, id)->condition).second)
            pieces.push_back(id);
    }
    return pieces;
}

bool PracticePresenter::canBreak() const
{
    return m_seed && m_session.study() != nullptr && m_session.shownTest() &&
           canPractise(*m_session.shownTest()) && !m_session.isForReading() && !waiting(true).empty();
}

void PracticePresenter::breakPieces(bool all)
{
    if (!canBreak())
        return;
    const std::vector<PieceId> pieces = waiting(all);
    const Study &study = *m_session.study();
    const PlannedTest &planned = testOfMethod(m_plan.tests(), *m_session.shownTest());
    const Section drawn = nominalSection(planned.shape);
    // Virtual pieces are as they were drawn.
    const bool isMeasured = m_session.tryEdit(tr("sizes of virtual pieces"), [&](Study &changed) {
        for (const PieceId id : pieces) {
            Piece *piece = findPiece(changed, id);
            if (!piece->section)
                piece->section = drawn;
        }
        return ok();
    });
    if (!isMeasured)
        return;
    const PracticeTruth hidden = truth();
    std::vector<RawFileToKeep> files;
    for (const PieceId id : pieces) {
        const Piece &piece = *findPiece(*m_session.study(), id);
        files.push_back({{},
                         fmt::format("practice {}.csv", piece.code),
                         {},
                         std::make_shared<const std::string>(practiceRecord(hidden, piece, *m_seed))});
    }
    m_session.tell(m_session.keepRawFiles(
        std::move(files), [self = QPointer(this), of = study.id, pieces](const KeptRawFiles &kept) {
            if (self != nullptr && self->m_study == of)
                self->link(pieces, kept);
        }));
}

void PracticePresenter::link(const std::vector<PieceId> &pieces, const KeptRawFiles &kept)
{
    m_session.tell(kept.status);
    m_session.tryEdit(tr("break virtual pieces"), [&](Study &study) {
        for (std::size_t i = 0; i < std::min(pieces.size(), kept.ids.size()); ++i) {
            if (Piece *piece = findPiece(study, pieces[i]))
                setRecording(*piece, Recording{kept.ids[i], {}, {}});
        }
        return ok();
    });
}

QString PracticePresenter::verdictText(PracticeVerdict verdict)
{
    switch (verdict) {
    case PracticeVerdict::CannotTell:
        return tr("cannot tell");
    case PracticeVerdict::More:
        return tr("holds more");
    case PracticeVerdict::Less:
        return tr("holds less");
    case PracticeVerdict::NoDifference:
        return tr("holds as much");
    }
    return {};
}

std::vector<PracticePresenter::Row> PracticePresenter::rows() const
{
    std::vector<Row> rows;
    if (!m_seed || m_session.study() == nullptr)
        return rows;
    const Study &study = *m_session.study();
    for (const PracticeAnswer &answer : judgePractice(study, truth(), m_said)) {
        Row row;
        row.rail = answer.rail;
        row.title = QString::fromStdString(distinctTitle(study, *findCondition(study, answer.rail)));
        row.said = answer.said;
        if (m_isRevealed) {
            const bool isOpen = answer.said == PracticeVerdict::CannotTell;
            const QString mark = answer.isRight ? tr("✓ right") : isOpen ? tr("– left open") : tr("✕ wrong");
            const QString was = answer.ratio == 1.0
                                    ? tr("it holds as much as the reference")
                                    : tr("it holds %1 %2 than the reference")
                                          .arg(QString::fromStdString(m_session.notation().percent(
                                                   std::abs(answer.ratio - 1.0))),
                                               answer.ratio > 1.0 ? tr("more") : tr("less"));
            row.truth = tr("%1: %2").arg(mark, was);
        }
        rows.push_back(row);
    }
    return rows;
}

void PracticePresenter::say(ConditionId rail, PracticeVerdict verdict)
{
    if (m_isRevealed)
        return;
    m_said[rail] = verdict;
    emit changed();
}

void PracticePresenter::reveal()
{
    if (!m_seed || m_session.study() == nullptr || m_isRevealed)
        return;
    OrderedJson said = OrderedJson::object();
    for (const auto &[rail, verdict] : m_said) {
        for (const auto &[known, name] : kNames) {
            if (known == verdict)
                said[fmt::format("{}", rail.value)] = name;
        }
    }
    if (!m_session.tell(m_session.project().setSetting(settingName(m_study), said.dump())))
        return;
    m_isRevealed = true;
    askOtherPlans();
    emit changed();
}

/// Half as many pieces, as many, and twice as many.
void PracticePresenter::askOtherPlans()
{
    m_plans.clear();
    if (m_asking.isRunning())
        return;
    const Study &study = *m_session.study();
    const int pieces = std::max(2, firstTest(study).piecesPerCondition);
    std::vector<int> sizes{std::max(2, pieces / 2), pieces, 2 * pieces};
    sizes.erase(std::unique(sizes.begin(), sizes.end()), sizes.end());
    m_asking.begin(
        "practice",
        [study, hidden = truth(), sizes](const TaskControl &control) {
            return practicePlans(study, hidden, sizes, onAllCores, control.stop);
        },
        [this](const Result<std::vector<PracticePlan>> &plans) {
            if (plans)
                m_plans = *plans;
            emit changed();
        });
}

QString PracticePresenter::summary() const
{
    if (!m_isRevealed || m_session.study() == nullptr)
        return {};
    const Study &study = *m_session.study();
    const PracticeTruth hidden = truth();
    const Notation &notation = m_session.notation();
    const PrintCost cost = costOf(study, m_session.workshop());
    QStringList sentences;
    sentences << tr("Single pieces scatter by %1 of their mean.")
                     .arg(QString::fromStdString(notation.percent(hidden.cv)));
    sentences << tr("The plan takes %1 pieces, %2 g, %3 h of printing and %4 %5.")
                     .arg(cost.pieces)
                     .arg(cost.grams, 0, 'f', 0)
                     .arg(cost.minutes / 60.0, 0, 'f', 1)
                     .arg(cost.money, 0, 'f', 2)
                     .arg(QString::fromStdString(m_session.workshop().moneyUnit));
    QStringList found;
    for (const PracticePlan &plan : m_plans)
        found << tr("%1 pieces a rail in %2 of 100 studies")
                     .arg(plan.pieces)
                     .arg(100.0 * plan.foundShare, 0, 'f', 0);
    const bool hasDifference = std::any_of(hidden.ratio.begin(), hidden.ratio.end(),
                                           [](const auto &one) { return one.second != 1.0; });
    if (!found.isEmpty())
        sentences << (hasDifference
                          ? tr("The largest difference that is there would be found with %1.")
                          : tr("Nothing differs here; the smallest difference that would matter would "
                               "be found with %1."))
                             .arg(found.join(tr(", with "))) +
                         QLatin1Char(' ') + tr("(%1 virtual studies of each size)").arg(kPracticeRuns);
    return sentences.join(QLatin1Char('\n'));
}

} // namespace inchpeg::app
