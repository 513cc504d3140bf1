// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/plan/plan_presenter.h"

#include "core/study/study_edit.h"
#include "core/study/verdict.h"
#include "core/units/number.h"

#include <QRegularExpression>

#include <algorithm>
#include <cmath>

namespace inchpeg::app
{

namespace
{

// Usual coefficients of variation between printed pieces, in percent (common practice).
constexpr double kTensionScatter = 4.0;
constexpr double kLayerScatter = 8.0;
constexpr std::size_t kLeastPieces = 3;
constexpr std::size_t kLeastRails = 2;

/// "50 mm": a value in its working unit as a person typed it, in the units that they chose.
QString typedText(const Notation &notation, double value, Dimension dimension)
{
    const Unit unit = notation.unitOf(dimension);
    return QString::fromStdString(notation.plain(unit.fromWorking(value))) + QLatin1Char(' ') +
           QString::fromUtf8(unit.symbol);
}

QString lengthText(const Notation &notation, const std::optional<Length> &length)
{
    return length ? typedText(notation, in_mm(*length), Dimension::Length) : QString();
}

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

struct ShareRuleWords {
    double ReadingRules::*member;
    const char *edit;
};
/// In the order of ShareRule.
constexpr ShareRuleWords kShareRules[] = {
    {&ReadingRules::lowStrain, QT_TRANSLATE_NOOP("inchpeg::app::PlanPresenter", "change the modulus range")},
    {&ReadingRules::highStrain, QT_TRANSLATE_NOOP("inchpeg::app::PlanPresenter", "change the modulus range")},
    {&ReadingRules::offsetStrain, QT_TRANSLATE_NOOP("inchpeg::app::PlanPresenter", "change the offset")},
    {&ReadingRules::breakDrop, QT_TRANSLATE_NOOP("inchpeg::app::PlanPresenter", "change the break drop")},
};

} // namespace

PlanPresenter::PlanPresenter(ProjectSession &session, QObject *parent) : QObject(parent), m_session(session)
{
    connect(&session, &ProjectSession::projectChanged, this, [this] { m_typedScatter.reset(); });
}

bool PlanPresenter::setQuestion(const QString &text)
{
    const QString question = text.simplified();
    return m_session.tryEdit(tr("change the question"), [&](Study &study) -> Status {
        if (question.isEmpty())
            return invalidArgument("the question needs words: it is the name of the study");
        study.question = question.toStdString();
        return ok();
    });
}

bool PlanPresenter::setMethod(Method method)
{
    return m_session.tryEdit(tr("change the test"), [&](Study &study) {
        study.method = method;
        return ok();
    });
}

bool PlanPresenter::setFactor(const QString &name, const QString &unit)
{
    return m_session.tryEdit(tr("change the factor"), [&](Study &study) -> Status {
        const std::string unitText = unit.trimmed().toStdString();
        for (const Condition &condition : study.conditions) {
            if (!unitText.empty() && !parseTypedNumber(condition.level))
                return invalidArgument("the level \"" + condition.level +
                                       "\" is a name; a factor with a unit needs numbers");
        }
        study.factorName = name.simplified().toStdString();
        study.factorUnit = unitText;
        return ok();
    });
}

bool PlanPresenter::setSmallestDifference(double percent)
{
    return m_session.tryEdit(tr("change the difference that matters"), [&](Study &study) {
        study.smallestDifference = percent / 100.0;
        return ok();
    });
}

bool PlanPresenter::setPiecesPerRail(int count)
{
    return m_session.tryEdit(tr("change the number of pieces"), [&](Study &study) {
        return setPiecesPerCondition(study, count, m_session.ids());
    });
}

bool PlanPresenter::setSectionShape(SectionShape shape)
{
    return m_session.tryEdit(tr("change the section"), [&](Study &study) {
        study.sectionShape = shape;
        return ok();
    });
}

bool PlanPresenter::setLengthRule(const QString &what, const QString &text,
                                  std::optional<Length> ReadingRules::*rule)
{
    return m_session.tryEdit(what, [&](Study &study) -> Status {
        if (text.trimmed().isEmpty()) {
            (study.rules.*rule).reset();
            return ok();
        }
        const Result<double> length_mm =
            parseQuantity(text.toStdString(), m_session.notation().unitOf(Dimension::Length));
        if (!length_mm)
            return length_mm.error();
        if (!(*length_mm > 0.0))
            return invalidArgument("a length above zero is wanted");
        study.rules.*rule = millimetres(*length_mm);
        return ok();
    });
}

bool PlanPresenter::setGaugeLength(const QString &text)
{
    return setLengthRule(tr("change the gauge length"), text, &ReadingRules::gaugeLength);
}

bool PlanPresenter::setGripDistance(const QString &text)
{
    return setLengthRule(tr("change the grip distance"), text, &ReadingRules::gripDistance);
}

bool PlanPresenter::setCapacity(const QString &text)
{
    return m_session.tryEdit(tr("change the gauge's range"), [&](Study &study) -> Status {
        if (text.trimmed().isEmpty()) {
            study.rules.capacity.reset();
            return ok();
        }
        const Result<double> force_N =
            parseQuantity(text.toStdString(), m_session.notation().unitOf(Dimension::Force));
        if (!force_N)
            return force_N.error();
        if (!(*force_N > 0.0))
            return invalidArgument("a range above zero is wanted");
        study.rules.capacity = newtons(*force_N);
        return ok();
    });
}

bool PlanPresenter::setToeCorrection(bool on)
{
    return m_session.tryEdit(on ? tr("take the toe off") : tr("leave the toe in"), [&](Study &study) {
        study.rules.toeCorrection = on;
        return ok();
    });
}

bool PlanPresenter::setShareRule(ShareRule rule, const QString &text)
{
    const ShareRuleWords &words = kShareRules[static_cast<std::size_t>(rule)];
    return m_session.tryEdit(tr(words.edit), [&](Study &study) -> Status {
        const Result<double> share =
            text.trimmed().isEmpty()
                ? Result<double>(ReadingRules{}.*words.member)
                : parseQuantity(text.toStdString(), m_session.notation().unitOf(Dimension::Ratio));
        if (!share)
            return share.error();
        study.rules.*words.member = *share;
        return checkRules(study.rules);
    });
}

QString PlanPresenter::shareRuleText(ShareRule rule) const
{
    const Study *study = m_session.study();
    return study != nullptr
               ? typedText(m_session.notation(),
                           study->rules.*kShareRules[static_cast<std::size_t>(rule)].member, Dimension::Ratio)
               : QString();
}

bool PlanPresenter::addLevels(const QString &list, Orientation orientation, const QString &material)
{
    const QStringList levels = splitLevels(list);
    return m_session.tryEdit(
        levels.size() == 1 ? tr("add a rail") : tr("add %1 rails").arg(levels.size()),
        [&](Study &study) -> Status {
            if (levels.isEmpty())
                return invalidArgument("type the levels of the factor, for example 230, 245, 260");
            for (const QString &level : levels) {
                const Status added = addCondition(
                    study,
                    {{}, level.trimmed().toStdString(), orientation, material.simplified().toStdString()},
                    m_session.ids());
                if (!added)
                    return added;
            }
            return ok();
        });
}

bool PlanPresenter::changeRail(const Condition &changed)
{
    return m_session.tryEdit(tr("change a rail"),
                             [&](Study &study) { return changeCondition(study, changed); });
}

bool PlanPresenter::removeRail(ConditionId rail)
{
    return m_session.tryEdit(tr("remove a rail"), [&](Study &study) { return removeCondition(study, rail); });
}

bool PlanPresenter::makeReference(ConditionId rail)
{
    return m_session.tryEdit(tr("change the reference"),
                             [&](Study &study) { return setReference(study, rail); });
}

QString PlanPresenter::gaugeLengthText() const
{
    return m_session.study() != nullptr
               ? lengthText(m_session.notation(), m_session.study()->rules.gaugeLength)
               : QString();
}

QString PlanPresenter::gripDistanceText() const
{
    return m_session.study() != nullptr
               ? lengthText(m_session.notation(), m_session.study()->rules.gripDistance)
               : QString();
}

QString PlanPresenter::capacityText() const
{
    const Study *study = m_session.study();
    return study != nullptr && study->rules.capacity
               ? typedText(m_session.notation(), in_N(*study->rules.capacity), Dimension::Force)
               : QString();
}

/// The pooled coefficient of variation of strength within the rails.
std::optional<double> PlanPresenter::ownScatter() const
{
    const Study *study = m_session.study();
    if (study == nullptr)
        return std::nullopt;
    return pooledCv(*study, m_session.readings(), *tensileProperty(kUsualProperty), kLeastPieces,
                    kLeastRails);
}

double PlanPresenter::scatterPercent() const
{
    if (m_typedScatter)
        return *m_typedScatter;
    if (const std::optional<double> own = ownScatter())
        return std::round(1000.0 * *own) / 10.0;
    return m_session.study() != nullptr && m_session.study()->method == Method::LayerAdhesion
               ? kLayerScatter
               : kTensionScatter;
}

QString PlanPresenter::scatterSource() const
{
    if (m_typedScatter)
        return tr("set by you");
    if (ownScatter())
        return tr("of the pieces in this study");
    return tr("usual for %1 (common practice)")
        .arg(m_session.study() != nullptr ? QString::fromUtf8(methodName(m_session.study()->method))
                                          : QString());
}

void PlanPresenter::setScatterPercent(double percent)
{
    m_typedScatter = percent;
}

QString PlanPresenter::planText() const
{
    const Study *study = m_session.study();
    if (study == nullptr)
        return {};
    return QString::fromStdString(planSentence(study->piecesPerCondition, scatterPercent() / 100.0,
                                               study->smallestDifference, m_session.notation()));
}

} // namespace inchpeg::app
