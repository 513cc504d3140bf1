// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/plan/plan_presenter.h"

#include "app/plan/typed_values.h"
#include "core/planning/cautions.h"
#include "core/planning/plan_edit.h"
#include "core/planning/planned_test.h"
#include "core/units/number.h"

#include <QRegularExpression>

#include <algorithm>

namespace inchpeg::app
{

/// "230, 245, 260", "230;245" or one level; "0,2" is one level with a decimal comma, "230,245" are two.
QStringList splitLevels(const QString &list)
{
    const QString text = list.trimmed();
    if (text.contains(QLatin1Char(';')))
        return text.split(QLatin1Char(';'), Qt::SkipEmptyParts);
    static const QRegularExpression commaAndBlank(QStringLiteral(",\\s+"));
    if (text.contains(commaAndBlank))
        return text.split(commaAndBlank, Qt::SkipEmptyParts);
    const QStringList parts = text.split(QLatin1Char(','), Qt::SkipEmptyParts);
    static const QRegularExpression severalDigits(QStringLiteral("^\\d\\d+$"));
    static const QRegularExpression startsWithDigit(QStringLiteral("^\\d"));
    const bool isList = std::all_of(parts.begin(), parts.end(), [](const QString &part) {
        return severalDigits.match(part).hasMatch() || !startsWithDigit.match(part).hasMatch();
    });
    return isList || parts.size() > 2 ? parts : text.isEmpty() ? QStringList() : QStringList{text};
}

namespace
{

std::vector<std::string> levelsOfText(const QString &list)
{
    std::vector<std::string> levels;
    for (const QString &level : splitLevels(list))
        levels.push_back(level.trimmed().toStdString());
    return levels;
}

/// A factor with what the library knows of it, where the person said nothing else.
Factor factorNamed(const QString &name, const QString &unit)
{
    Factor factor{name.simplified().toStdString(), unit.trimmed().toStdString(), ChangedPer::Plate};
    if (const FactorKind *kind = findFactorKind(factor.name)) {
        factor.changedPer = kind->changedPer;
        if (factor.unit.empty())
            factor.unit = kind->unit;
    }
    return factor;
}

/// A field may send what was typed after its factor was taken back.
Status factorIsThere(const Study &study, std::size_t index)
{
    if (index < study.factors.size())
        return ok();
    return Error{ErrorCode::NotFound, "this factor is no longer there; nothing was changed", {}};
}

/// Times in the unit that people use for them here: nobody counts a forecast of a thousand hours in seconds.
Unit shownUnit(const Parameter &parameter, const Notation &notation)
{
    const Unit own = *findUnit(parameter.unit);
    return own.dimension == Dimension::Time ? own : notation.unitOf(own.dimension);
}

} // namespace

PlanPresenter::PlanPresenter(ProjectSession &session, QObject *parent)
    : QObject(parent), m_session(session), m_state(session)
{
}

bool PlanPresenter::edit(const QString &what, const std::function<Status(Study &)> &change)
{
    return m_session.tryEdit(what, change);
}

bool PlanPresenter::setQuestion(const QString &text)
{
    return edit(tr("change the question"),
                [&](Study &study) { return inchpeg::setQuestion(study, text.simplified().toStdString()); });
}

bool PlanPresenter::setMethod(Method method)
{
    return edit(tr("change the test"), [&](Study &study) { return inchpeg::setMethod(study, method); });
}

bool PlanPresenter::setProperty(Method test, const QString &name)
{
    return edit(tr("change the response"), [&](Study &study) {
        inchpeg::setProperty(study, test, name.toStdString());
        return ok();
    });
}

bool PlanPresenter::setDifference(const QString &text)
{
    const PlannedProperty property = m_state.tests().front().property;
    const Condition *reference = findCondition(m_state.study(), m_state.study().reference);
    const std::optional<ExpectedValue> expected =
        reference != nullptr
            ? expectedValue(m_state.study(), m_state.tests().front(), *reference, m_state.own())
            : std::nullopt;
    return edit(tr("change the difference that matters"), [&](Study &study) {
        return inchpeg::setDifference(study, property, text.trimmed().toStdString(),
                                      expected ? std::optional(expected->value) : std::nullopt);
    });
}

QString PlanPresenter::differenceText()
{
    const Study &study = m_state.study();
    const Notation &notation = m_session.notation();
    if (study.plan.aim.absoluteDifference) {
        const Dimension dimension = differenceOf(m_state.tests().front().property.dimension);
        return QString::fromStdString(notation.quantity(*study.plan.aim.absoluteDifference, dimension, 3));
    }
    return QString::fromStdString(notation.plain(100.0 * study.smallestDifference)) + QStringLiteral(" %");
}

bool PlanPresenter::setFactor(std::size_t index, const QString &name, const QString &unit)
{
    return edit(tr("change the factor"), [&](Study &study) -> Status {
        if (const Status there = factorIsThere(study, index); !there)
            return there;
        const bool renamed = study.factors[index].name != name.simplified().toStdString();
        Factor factor = factorNamed(name, unit);
        if (!renamed) {
            factor.unit = unit.trimmed().toStdString();
            factor.changedPer = study.factors[index].changedPer;
        }
        return changeFactor(study, index, factor);
    });
}

bool PlanPresenter::setChangedPer(std::size_t index, ChangedPer changedPer)
{
    return edit(tr("change how a factor is set"), [&](Study &study) -> Status {
        if (const Status there = factorIsThere(study, index); !there)
            return there;
        study.factors[index].changedPer = changedPer;
        return ok();
    });
}

bool PlanPresenter::addFactor(const QString &name, const QString &level)
{
    return edit(tr("add a factor"), [&](Study &study) -> Status {
        if (name.trimmed().isEmpty())
            return invalidArgument("choose or type what else is varied");
        return inchpeg::addFactor(study, factorNamed(name, {}), level.trimmed().toStdString());
    });
}

bool PlanPresenter::removeFactor(std::size_t index)
{
    return edit(tr("remove a factor"), [&](Study &study) { return inchpeg::removeFactor(study, index); });
}

bool PlanPresenter::makeRails(DesignKind design, const std::vector<std::string> &generators,
                              const QStringList &levels)
{
    return edit(tr("make the rails"), [&](Study &study) {
        std::vector<std::vector<std::string>> lists;
        for (const QString &list : levels)
            lists.push_back(levelsOfText(list));
        study.plan.generators = generators;
        return inchpeg::makeRails(study, design, lists, m_session.ids());
    });
}

QStringList PlanPresenter::aliasSentences() const
{
    const Study &study = m_state.study();
    QStringList sentences;
    if (study.plan.design != DesignKind::Fraction)
        return sentences;
    const Result<TwoLevelFraction> fraction =
        TwoLevelFraction::make(static_cast<int>(study.factors.size()), study.plan.generators);
    std::vector<std::string> names;
    for (const Factor &factor : study.factors)
        names.push_back(factor.name);
    if (fraction) {
        for (const std::string &sentence : inchpeg::aliasSentences(*fraction, names))
            sentences << QString::fromStdString(sentence);
    }
    return sentences;
}

QString PlanPresenter::levelsText(std::size_t factor) const
{
    QStringList levels;
    for (const std::string &level : levelsOf(m_state.study(), factor))
        levels << QString::fromStdString(level);
    return levels.join(QStringLiteral("; "));
}

bool PlanPresenter::addLevels(const QString &list, Orientation orientation, const QString &material)
{
    const std::vector<std::string> levels = levelsOfText(list);
    return edit(levels.size() == 1 ? tr("add a rail") : tr("add rails"), [&](Study &study) -> Status {
        if (levels.empty())
            return invalidArgument("type the levels of the factor, for example 230, 245, 260");
        study.plan.design = DesignKind::Chosen;
        const std::string text = material.simplified().toStdString();
        if (study.factors.size() > 1)
            return addCondition(study, {{}, levels, orientation, text}, m_session.ids());
        for (const std::string &level : levels) {
            const Status added = addCondition(study, {{}, {level}, orientation, text}, m_session.ids());
            if (!added)
                return added;
        }
        return ok();
    });
}

bool PlanPresenter::changeRail(const Condition &changed)
{
    return edit(tr("change a rail"), [&](Study &study) { return changeCondition(study, changed); });
}

bool PlanPresenter::removeRail(ConditionId rail)
{
    return edit(tr("remove a rail"), [&](Study &study) {
        study.plan.design = DesignKind::Chosen;
        return removeCondition(study, rail);
    });
}

bool PlanPresenter::makeReference(ConditionId rail)
{
    return edit(tr("change the reference"), [&](Study &study) { return setReference(study, rail); });
}

bool PlanPresenter::lock(const QString &name, const QString &value)
{
    return edit(value.trimmed().isEmpty() ? tr("unlock a setting") : tr("lock a setting"), [&](Study &study) {
        return lockSetting(study, name.simplified().toStdString(), value.simplified().toStdString());
    });
}

bool PlanPresenter::addTest(Method method)
{
    return edit(tr("add a test"),
                [&](Study &study) { return inchpeg::addTest(study, method, m_session.ids()); });
}

bool PlanPresenter::removeTest(Method method)
{
    return edit(tr("take a test out"),
                [&](Study &study) { return inchpeg::removeTest(study, method, m_session.ids()); });
}

bool PlanPresenter::setPiecesPerRail(Method test, int count)
{
    return edit(tr("change the number of pieces"), [&](Study &study) {
        return setPiecesPerCondition(study, test, std::max(1, count), m_session.ids());
    });
}

bool PlanPresenter::setSpares(int count)
{
    return edit(tr("change the spares"), [&](Study &study) { return inchpeg::setSpares(study, count); });
}

bool PlanPresenter::setComparison(Comparison comparison)
{
    return edit(tr("change what is compared"), [&](Study &study) {
        study.plan.aim.comparison = comparison;
        return ok();
    });
}

bool PlanPresenter::setPlateScatter(double percent)
{
    return edit(tr("change how plates are expected to scatter"), [&](Study &study) {
        study.plan.aim.plateCv = percent > 0.0 ? std::optional(percent / 100.0) : std::nullopt;
        return ok();
    });
}

bool PlanPresenter::setLooks(std::optional<Spending> looks)
{
    return edit(tr("change when results are looked at"), [&](Study &study) {
        study.plan.aim.looks = looks;
        return ok();
    });
}

bool PlanPresenter::setConfidence(double percent)
{
    return edit(tr("change the confidence"), [&](Study &study) {
        study.plan.aim.confidence = percent / 100.0;
        return ok();
    });
}

bool PlanPresenter::setPower(double percent)
{
    return edit(tr("change the power"), [&](Study &study) {
        study.plan.aim.power = percent / 100.0;
        return ok();
    });
}

bool PlanPresenter::setScatter(double percent)
{
    return edit(tr("change the expected scatter"), [&](Study &study) {
        study.plan.aim.cv = percent > 0.0 ? std::optional(percent / 100.0) : std::nullopt;
        return ok();
    });
}

bool PlanPresenter::setShape(Method test, const SpecimenShape &shape)
{
    return edit(tr("choose the specimen"),
                [&](Study &study) { return inchpeg::setShape(study, test, shape); });
}

bool PlanPresenter::setRig(Method test, const QString &name)
{
    return edit(tr("choose the rig"), [&](Study &study) {
        inchpeg::setRig(study, test, m_session.workshop(), name.toStdString());
        return ok();
    });
}

bool PlanPresenter::setExpected(Method test, const QString &text)
{
    const Dimension dimension = testOfMethod(m_state.tests(), test).property.dimension;
    return edit(tr("change what is expected"), [&](Study &study) -> Status {
        TestSetup &setup = setupOf(study, test);
        if (text.trimmed().isEmpty()) {
            setup.expected.reset();
            return ok();
        }
        const Unit unit = m_session.notation().unitOf(dimension);
        const Result<double> value = parseQuantity(text.toStdString(), unit);
        if (!value)
            return value.error();
        if (!(*value > 0.0))
            return invalidArgument("a value above zero is expected");
        setup.expected = *value;
        return ok();
    });
}

bool PlanPresenter::setStress(Method test, const QString &text)
{
    return edit(tr("change the stress"), [&](Study &study) -> Status {
        const Result<double> value = typedAboveZero(text, m_session.notation().unitOf(Dimension::Stress));
        if (!value)
            return value.error();
        setupOf(study, test).stress_MPa = *value;
        return ok();
    });
}

bool PlanPresenter::setParameter(Method test, const Parameter &parameter, const QString &text)
{
    std::string typed = text.trimmed().toStdString();
    if (parameter.choices.empty() && !typed.empty() && numberPrefixLength(typed) == typed.size()) {
        typed += ' ' + std::string(shownUnit(parameter, m_session.notation()).symbol);
    }
    return m_session.tryEdit(
        tr("change %1").arg(QString::fromUtf8(parameter.label).toLower()),
        [&](Study &study) { return setTestParameter(study, test, parameter.name, typed); });
}

QString PlanPresenter::parameterText(Method test, const Parameter &parameter) const
{
    const MethodSettings &settings = findTest(m_state.study(), test)->setup.settings;
    if (!parameter.choices.empty())
        return QString::fromUtf8(settings.word(parameter.name));
    const std::optional<double> value = settings.number(parameter.name);
    if (!value)
        return {};
    const Notation &notation = m_session.notation();
    const Unit unit = shownUnit(parameter, notation);
    return QString::fromStdString(notation.plain(unit.fromWorking(*value))) + QLatin1Char(' ') +
           QString::fromUtf8(unit.symbol);
}

QString PlanPresenter::usualText(const Parameter &parameter) const
{
    const Notation &notation = m_session.notation();
    if (parameter.usual.empty())
        return tr("in %1").arg(QString::fromUtf8(shownUnit(parameter, notation).symbol));
    QString usual = QString::fromUtf8(parameter.usual);
    return tr("usually %1").arg(usual.replace(QLatin1Char('.'), QLatin1Char(notation.decimalMark())));
}

bool PlanPresenter::setSectionShape(SectionShape shape)
{
    return edit(tr("change the section"), [&](Study &study) {
        study.sectionShape = shape;
        return ok();
    });
}

bool PlanPresenter::setFixture(Method test, Fixture fixture)
{
    return edit(tr("change how the bar is held"), [&](Study &study) {
        setupOf(study, test).fixture = fixture;
        return ok();
    });
}

bool PlanPresenter::setFreeLength(Method test, const QString &text)
{
    return edit(tr("change the free length"), [&](Study &study) -> Status {
        const Result<double> length_mm = typedAboveZero(text, m_session.notation().unitOf(Dimension::Length));
        if (!length_mm)
            return length_mm.error();
        setupOf(study, test).freeLength_mm = *length_mm;
        return ok();
    });
}

bool PlanPresenter::setSpeed(Method test, double mm_per_min)
{
    return edit(tr("change the test speed"), [&](Study &study) {
        setupOf(study, test).speed_mm_per_min = mm_per_min;
        return ok();
    });
}

bool PlanPresenter::setRounds(int rounds)
{
    return edit(tr("change the rounds"), [&](Study &study) {
        study.plan.print.rounds = std::max(1, rounds);
        return ok();
    });
}

bool PlanPresenter::drawAgain()
{
    return setSeed(m_state.study().plan.print.seed + 1);
}

bool PlanPresenter::setSeed(std::uint64_t seed)
{
    return edit(tr("draw the order again"), [&](Study &study) {
        study.plan.print.seed = seed;
        return ok();
    });
}

bool PlanPresenter::setGap(double mm)
{
    return edit(tr("change the gap on the plate"), [&](Study &study) {
        study.plan.print.gap_mm = mm;
        return ok();
    });
}

bool PlanPresenter::setPrinter(const QString &name)
{
    return edit(tr("choose the printer"), [&](Study &study) {
        study.plan.print.printer = name.toStdString();
        return ok();
    });
}

bool PlanPresenter::setSlicer(ConditionId rail, std::optional<double> grams, std::optional<double> minutes)
{
    return edit(tr("take the slicer's figures"), [&](Study &study) {
        return inchpeg::setSlicer(study, rail, {grams, minutes});
    });
}

bool PlanPresenter::markPrinted(int plate)
{
    const PlateLayout layout = m_state.layout();
    return edit(tr("mark plate %1 as printed").arg(plate),
                [&](Study &study) { return inchpeg::markPrinted(study, layout, plate, m_session.now()); });
}

bool PlanPresenter::unmarkPrinted(int plate)
{
    return edit(tr("plate %1 is not printed").arg(plate),
                [&](Study &study) { return inchpeg::unmarkPrinted(study, plate); });
}

bool PlanPresenter::setStart(const QString &day)
{
    return edit(tr("change the start"),
                [&](Study &study) { return inchpeg::setStart(study, day.trimmed().toStdString()); });
}

bool PlanPresenter::setDrying(bool on)
{
    return edit(on ? tr("dry before printing") : tr("print without drying"), [&](Study &study) {
        study.plan.dates.dry = on;
        return ok();
    });
}

bool PlanPresenter::setConditioning(const std::optional<double> &hours)
{
    return edit(tr("change the conditioning"), [&](Study &study) {
        study.plan.dates.conditioning_h = hours;
        return ok();
    });
}

bool PlanPresenter::apply(const Control &control)
{
    return edit(tr("add a control"),
                [&](Study &study) { return applyControl(study, control, m_session.ids()); });
}

bool PlanPresenter::confirm(std::string_view caution, bool confirmed)
{
    return edit(confirmed ? tr("confirm a caution") : tr("take a confirmation back"), [&](Study &study) {
        confirmCaution(study, caution,
                       confirmed ? std::optional(Confirmation{std::string(caution),
                                                              m_session.who().toStdString(), m_session.now()})
                                 : std::nullopt);
        return ok();
    });
}

} // namespace inchpeg::app
