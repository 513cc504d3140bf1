// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "app/session/project_session.h"

#include <QObject>

namespace inchpeg::app
{

/// Ask & plan without widgets: turns what is typed into edits, and the plan into words.
class PlanPresenter : public QObject
{
    Q_OBJECT
public:
    explicit PlanPresenter(ProjectSession &session, QObject *parent = nullptr);

    bool setQuestion(const QString &text);
    bool setMethod(Method method);
    bool setFactor(const QString &name, const QString &unit);
    bool setSmallestDifference(double percent);
    bool setPiecesPerRail(int count);
    bool setSectionShape(SectionShape shape);
    /// Typed lengths and forces may carry a unit; an empty text takes the value away.
    bool setGaugeLength(const QString &text);
    bool setGripDistance(const QString &text);
    bool setCapacity(const QString &text);

    /// Rules of reading that are shares; they hold for every record of the study.
    enum class ShareRule { ModulusFrom, ModulusTo, Offset, BreakDrop };
    bool setToeCorrection(bool on);
    /// In percent unless a unit is typed; an empty text goes back to the usual value.
    bool setShareRule(ShareRule rule, const QString &text);
    [[nodiscard]] QString shareRuleText(ShareRule rule) const;

    /// Adds a rail for each level of a list such as "230, 245; 260".
    bool addLevels(const QString &list, Orientation orientation, const QString &material);
    bool changeRail(const Condition &changed);
    bool removeRail(ConditionId rail);
    bool makeReference(ConditionId rail);

    [[nodiscard]] QString gaugeLengthText() const;
    [[nodiscard]] QString gripDistanceText() const;
    [[nodiscard]] QString capacityText() const;

    /// The scatter that the plan is judged by, in percent: of this study's own pieces once there are two
    /// rails of three, else a usual value for the method until the person sets one.
    [[nodiscard]] double scatterPercent() const;
    [[nodiscard]] QString scatterSource() const;
    void setScatterPercent(double percent);
    [[nodiscard]] QString planText() const;

private:
    bool setLengthRule(const QString &what, const QString &text, std::optional<Length> ReadingRules::*rule);
    [[nodiscard]] std::optional<double> ownScatter() const;

    ProjectSession &m_session;
    std::optional<double> m_typedScatter;
};

} // namespace inchpeg::app
