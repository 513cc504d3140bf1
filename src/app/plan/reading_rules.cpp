// SPDX-License-Identifier: GPL-3.0-or-later
// The part of the plan that says how records are read.
#include "app/plan/plan_presenter.h"
#include "app/plan/typed_values.h"
#include "core/units/number.h"

namespace inchpeg::app
{

namespace
{

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
        const Result<double> length_mm = typedAboveZero(text, m_session.notation().unitOf(Dimension::Length));
        if (!length_mm)
            return length_mm.error();
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
        const Result<double> force_N = typedAboveZero(text, m_session.notation().unitOf(Dimension::Force));
        if (!force_N)
            return force_N.error();
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

} // namespace inchpeg::app
