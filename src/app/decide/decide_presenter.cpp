// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/decide/decide_presenter.h"

#include "app/decide/offered_needs.h"
#include "core/decide/need_text.h"
#include "core/model/study_edit.h"
#include "core/planning/plan_edit.h"
#include "core/units/number.h"
#include "core/units/quantity.h"
#include "service/project_results.h"

#include <algorithm>
#include <array>
#include <cmath>

namespace inchpeg::app
{

namespace
{

constexpr int kShownDigits = 3;
constexpr double kFarShare = 1.0; ///< beyond the gate by as much as the gate: at the end of the rail
constexpr double kFar_K = 40.0;
constexpr double kFarGrades = 4.0;

} // namespace

/// Copies: the window goes on while they are worked with.
struct DecidePresenter::Asked {
    std::string path;
    Needs needs;
    Notation notation;
    std::optional<StudyId> only; ///< candidates of this study alone
};

DecidePresenter::DecidePresenter(ProjectSession &session, QObject *parent)
    : QObject(parent), m_session(session)
{
    connect(&session, &ProjectSession::projectChanged, this, &DecidePresenter::refresh);
    connect(&session, &ProjectSession::studyChanged, this, &DecidePresenter::refresh);
    connect(&session, &ProjectSession::readingsChanged, this, &DecidePresenter::refresh);
    connect(&session, &ProjectSession::notationChanged, this, &DecidePresenter::refresh);
    connect(&session, &ProjectSession::lensChanged, this, &DecidePresenter::refresh);
    connect(&session, &ProjectSession::keptTextChanged, this, [this](const QString &name) {
        if (name == QLatin1String(kNeedsSetting)) {
            readNeeds();
            refresh();
        }
    });
}

void DecidePresenter::readNeeds()
{
    m_shownProject = m_session.projectPath();
    m_needs = {};
    if (const std::string kept = m_session.keptText(kNeedsSetting); !kept.empty()) {
        Result<Needs> needs = needsFromText(kept);
        if (m_session.tell(needs ? ok() : Status(needs.error())))
            m_needs = std::move(*needs);
    }
    emit needsChanged();
}

void DecidePresenter::refresh()
{
    if (m_session.projectPath() != m_shownProject) {
        m_decision = {};
        readNeeds();
    }
    const bool isAsked = m_session.study() != nullptr && m_session.lens() == Lens::Decide;
    m_isOutOfDate = m_task.isRunning();
    if (!isAsked || m_task.isRunning())
        return;
    if (m_needs.needs.empty()) {
        m_decision = {};
        emit changed();
        return;
    }
    Asked asked{m_session.projectPath().toStdString(), m_needs, m_session.notation(),
                m_ofAllStudies ? std::nullopt : std::optional(m_session.study()->id)};
    m_task.begin(
        "decision", [asked = std::move(asked)] { return workOut(asked); },
        [this](Result<Decision> result) { take(std::move(result)); });
    emit changed();
}

Decision DecidePresenter::workOut(const Asked &asked)
{
    Result<ProjectFile> project = ProjectFile::openForReading(asked.path);
    const Result<ProjectResults> all =
        project ? readProjectResults(*project) : Result<ProjectResults>(project.error());
    if (!all) {
        Decision none;
        none.headline = all.error().message;
        return none;
    }
    const std::vector<StudyResults> results = all->results();
    Needs needs = asked.needs;
    if (asked.only) {
        for (const Candidate &candidate : candidatesOf(results, {})) {
            const bool isHere =
                std::any_of(candidate.rails.begin(), candidate.rails.end(), [&](const CandidateRail &rail) {
                    return results[rail.study].study->id == *asked.only;
                });
            if (isHere)
                needs.candidates.push_back(candidate.name);
        }
        needs.candidates.insert(needs.candidates.end(), needs.materials.begin(), needs.materials.end());
        for (const BoughtPart &part : needs.bought)
            needs.candidates.push_back(part.name);
    }
    return decide({.results = results, .workshop = &all->workshop, .needs = std::move(needs)},
                  asked.notation);
}

void DecidePresenter::take(Result<Decision> result)
{
    Decision found;
    if (result)
        found = std::move(*result);
    else
        found.headline = result.error().message;
    if (m_isOutOfDate) {
        refresh();
        if (m_task.isRunning())
            return;
    }
    m_decision = std::move(found);
    m_chosen = std::min(m_chosen, m_decision.order.empty() ? 0 : m_decision.order.size() - 1);
    emit changed();
}

QString DecidePresenter::headline() const
{
    if (m_needs.needs.empty())
        return tr("What does the part have to do? Add its needs, or begin with a usual part.");
    return m_decision.headline.empty() ? tr("Working it out…") : QString::fromStdString(m_decision.headline);
}

QString DecidePresenter::sentences() const
{
    QStringList lines;
    for (const std::string &sentence : m_decision.sentences)
        lines << QString::fromStdString(sentence);
    return lines.join(QLatin1Char('\n'));
}

QString DecidePresenter::limitText(std::size_t need) const
{
    const Need &one = m_needs.needs[need];
    const bool hasNone = one.kind == NeedKind::Printer || one.kind == NeedKind::Never;
    const Unit unit = needUnit(one, m_session.notation());
    return hasNone ? QString()
                   : QString::fromStdString(withUnit(
                         m_session.notation().plain(unit.fromWorking(one.limit), kShownDigits), unit));
}

QString DecidePresenter::loadText(std::size_t need) const
{
    const Need &one = m_needs.needs[need];
    return one.load_MPa ? QString::fromStdString(
                              m_session.notation().quantity(*one.load_MPa, Dimension::Stress, kShownDigits))
                        : QString();
}

QString DecidePresenter::gateText(std::size_t need) const
{
    return QString::fromStdString(
        needGateText(m_decision.needs.needs[need], m_session.notation(), m_session.workshop().moneyUnit));
}

QString DecidePresenter::valueText(std::size_t candidate, std::size_t need) const
{
    const Evidence &evidence = m_decision.order[candidate].gates[need].evidence;
    if (!evidence.value)
        return tr("not known");
    return (evidence.isBound ? QStringLiteral("≥ ") : QString()) +
           QString::fromStdString(needValueText(m_decision.needs.needs[need], *evidence.value,
                                                m_session.notation(), m_session.workshop().moneyUnit));
}

std::optional<double> DecidePresenter::place(std::size_t candidate, std::size_t need) const
{
    const Gate &gate = m_decision.order[candidate].gates[need];
    if (!gate.margin)
        return std::nullopt;
    const Property &property = targetOf(m_decision.needs.needs[need]).property;
    const double far = property.dimension == Dimension::Temperature ? kFar_K
                       : property.scale == inchpeg::Scale::Ordinal  ? kFarGrades
                                                                    : kFarShare;
    return std::clamp(*gate.margin / far, -1.0, 1.0);
}

void DecidePresenter::choose(std::size_t candidate)
{
    if (candidate >= m_decision.order.size() || candidate == m_chosen)
        return;
    m_chosen = candidate;
    emit changed();
}

QStringList DecidePresenter::reasons() const
{
    QStringList lines;
    if (m_chosen >= m_decision.order.size())
        return lines;
    const RankedCandidate &ranked = m_decision.order[m_chosen];
    for (const Gate &gate : ranked.gates)
        lines << QString::fromStdString(gate.why);
    if (m_decision.order.size() > 1)
        lines << tr("It comes first in %1 of 100 cases drawn from what is known.")
                     .arg(static_cast<int>(std::lround(100.0 * ranked.firstShare)));
    return lines;
}

bool DecidePresenter::change(Needs needs)
{
    if (!m_session.hasProject() || needs == m_needs)
        return false;
    if (!m_session.isForReading()) // taken up as any change of it, undo's as well
        return m_session.tryKeepText(tr("change what the part has to do"), kNeedsSetting,
                                     needs == Needs{} ? "" : needsText(needs));
    m_needs = std::move(needs); // may be tried out, and is forgotten
    emit needsChanged();
    refresh();
    return true;
}

bool DecidePresenter::changeNeed(std::size_t need, const std::function<Status(Need &)> &changeIt)
{
    if (need >= m_needs.needs.size())
        return false;
    Needs after = m_needs;
    Status status = changeIt(after.needs[need]);
    if (status)
        status = checkNeed(after.needs[need]);
    return m_session.tell(status) && (after == m_needs || change(std::move(after)));
}

void DecidePresenter::setPart(const QString &part)
{
    Needs after = m_needs;
    after.part = part.simplified().toStdString();
    change(std::move(after));
}

void DecidePresenter::useTemplate(std::size_t place)
{
    const NeedTemplate &part = needTemplates().at(place);
    Needs after = m_needs;
    after.needs = part.needs;
    if (after.part.empty())
        after.part = part.name;
    change(std::move(after));
}

void DecidePresenter::addNeed(NeedKind kind)
{
    Need need = usualNeed(kind);
    need.name = needWords(kind).toStdString();
    Needs after = m_needs;
    after.needs.push_back(std::move(need));
    change(std::move(after));
}

void DecidePresenter::removeNeed(std::size_t need)
{
    Needs after = m_needs;
    if (need >= after.needs.size())
        return;
    after.needs.erase(after.needs.begin() + static_cast<std::ptrdiff_t>(need));
    change(std::move(after));
}

void DecidePresenter::setName(std::size_t need, const QString &name)
{
    if (!name.trimmed().isEmpty())
        changeNeed(need, [&](Need &one) {
            one.name = name.simplified().toStdString();
            return ok();
        });
}

bool DecidePresenter::setLimit(std::size_t need, const QString &limit)
{
    return changeNeed(need, [&](Need &one) -> Status {
        const Result<double> value =
            parseQuantity(limit.simplified().toStdString(), needUnit(one, m_session.notation()));
        if (!value)
            return value.error();
        one.limit = *value;
        return ok();
    });
}

bool DecidePresenter::setFactor(std::size_t need, const QString &factor)
{
    return changeNeed(need, [&](Need &one) -> Status {
        const std::optional<double> value = parseTypedNumber(factor.simplified().toStdString());
        if (!value)
            return invalidArgument("type the safety factor as a number, such as 2");
        one.safetyFactor = *value;
        return ok();
    });
}

bool DecidePresenter::setLoad(std::size_t need, const QString &load)
{
    return changeNeed(need, [&](Need &one) -> Status {
        const Result<double> value =
            parseQuantity(load.simplified().toStdString(), m_session.notation().unitOf(Dimension::Stress));
        if (!value)
            return value.error();
        if (!(*value > 0.0))
            return invalidArgument("a load above zero is wanted");
        one.load_MPa = *value;
        return ok();
    });
}

bool DecidePresenter::setHours(std::size_t need, const QString &hours)
{
    return changeNeed(need, [&](Need &one) -> Status {
        const Result<double> value = parseQuantity(hours.simplified().toStdString(), *findUnit("h"));
        if (!value)
            return value.error();
        one.after_h = *value / kSecondsPerHour;
        return ok();
    });
}

void DecidePresenter::setMust(std::size_t need, bool isMust)
{
    changeNeed(need, [&](Need &one) {
        one.isMust = isMust;
        return ok();
    });
}

bool DecidePresenter::setWeight(std::size_t need, const QString &weight)
{
    return changeNeed(need, [&](Need &one) -> Status {
        const std::optional<double> value = parseTypedNumber(weight.simplified().toStdString());
        if (!value)
            return invalidArgument("type the weight of a wish as a number, such as 2");
        one.weight = *value;
        return ok();
    });
}

bool DecidePresenter::addCandidate(const QString &text)
{
    const QString words = text.simplified();
    if (words.isEmpty())
        return false;
    Needs after = m_needs;
    const qsizetype comma = words.lastIndexOf(QLatin1Char(','));
    const std::optional<double> price =
        comma > 0 ? parseTypedNumber(words.mid(comma + 1).trimmed().toStdString()) : std::nullopt;
    if (price && !(*price > 0.0))
        return m_session.tell(
            invalidArgument("type the price of a bought part behind a comma, such as bracket, 4.20"));
    if (price)
        after.bought.push_back({words.left(comma).trimmed().toStdString(), *price});
    else
        after.materials.push_back(words.toStdString());
    return change(std::move(after));
}

QStringList DecidePresenter::addedCandidates() const
{
    QStringList names;
    for (const std::string &material : m_needs.materials)
        names << QString::fromStdString(material);
    for (const BoughtPart &part : m_needs.bought)
        names << QString::fromStdString(part.name);
    return names;
}

void DecidePresenter::removeCandidate(const QString &name)
{
    Needs after = m_needs;
    std::erase(after.materials, name.toStdString());
    std::erase_if(after.bought, [&](const BoughtPart &part) { return part.name == name.toStdString(); });
    change(std::move(after));
}

void DecidePresenter::setOfAllStudies(bool all)
{
    m_ofAllStudies = all;
    refresh();
}

bool DecidePresenter::planMore(const Settling &settling)
{
    if (!m_session.tell(m_session.selectStudy(settling.more->study)))
        return false;
    const bool isPlanned = m_session.tryEdit(tr("plan what settles a need"), [&](Study &study) {
        return addPieces(study, settling.more->condition, *settling.test, settling.pieces - settling.there,
                         m_session.ids());
    });
    m_session.setLens(Lens::Plan);
    return isPlanned;
}

bool DecidePresenter::plan(std::size_t settling)
{
    if (settling >= m_decision.settle.size() || !m_decision.settle[settling].test ||
        m_decision.settle[settling].pieces == 0)
        return false;
    const Settling one = m_decision.settle[settling];
    if (one.more)
        return planMore(one);
    const Need need = m_decision.needs.needs[one.need];
    const Candidate candidate = m_decision.order[one.candidate].candidate;
    const QString question =
        tr("Does %1 do it: %2?")
            .arg(QString::fromStdString(candidate.name), QString::fromStdString(need.name));
    if (!m_session.tell(m_session.addStudy(question)))
        return false;
    const bool isPlanned = m_session.tryEdit(tr("plan what settles a need"), [&](Study &study) -> Status {
        if (const Status status = setMethod(study, *one.test); !status)
            return status;
        StudyTest &test = firstTest(study);
        test.piecesPerCondition = one.pieces;
        if (need.load_MPa)
            test.setup.stress_MPa = *need.load_MPa;
        study.factors.front().name = "candidate";
        return addCondition(study, {{}, {candidate.name}, usualOrientation(*one.test), candidate.material},
                            m_session.ids());
    });
    m_session.setLens(Lens::Plan);
    return isPlanned;
}

} // namespace inchpeg::app
